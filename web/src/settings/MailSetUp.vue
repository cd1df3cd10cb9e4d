<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, type Told } from '@/shared/api/client'

/** Through which server messages go out, tried with one press. */
const mail = useQuery({ queryKey: ['mail'], queryFn: () => got(api.GET('/api/mail')) })
const said = ref('')
const failed = ref('')
const trying = ref(false)
async function attempt() {
  said.value = failed.value = ''
  trying.value = true
  try {
    said.value = (await got(api.POST('/api/mail/try'))).said
  } catch (error) {
    failed.value = (error as Told).message
  }
  trying.value = false
}
</script>

<template>
  <section v-if="mail.data.value" aria-labelledby="mail">
    <h2 id="mail" class="mt-8 mb-1">Mail</h2>
    <p>
      <template v-if="mail.data.value.server">
        Messages go out through {{ mail.data.value.server
        }}<template v-if="mail.data.value.sender"> from {{ mail.data.value.sender }}</template
        >.
      </template>
      <template v-else>
        No mail server is set up: messages wait in the outbox, and can be downloaded there. Whoever runs the
        service sets <code>RAIN_PORCH_SMTP</code>.
      </template>
      {{ mail.data.value.to ? `Your own address is ${mail.data.value.to}.` : '' }}
    </p>
    <p class="mt-2">
      <ActButton :disabled="trying" @click="attempt">Send a message to myself</ActButton>
    </p>
    <p v-if="said" class="moss small mt-2" role="status">{{ said }}</p>
    <p v-if="failed" class="clay small mt-2" role="alert">{{ failed }}</p>
  </section>
</template>
