<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import RecipientFields from './RecipientFields.vue'

/** The same papers once more, as they went out: to the same people, or to others. */
const props = defineProps<{ delivery: Docs['DeliveryDoc'] }>()
const emit = defineEmits<{ close: [] }>()
const queries = useQueryClient()
const name = ref(props.delivery.client)
const email = ref(props.delivery.email)
const fault = ref('')
const busy = ref(false)
async function send(mail: boolean) {
  fault.value = ''
  if (mail && !email.value.trim()) {
    fault.value = 'Write the address to which it is to go.'
    return
  }
  busy.value = true
  try {
    await got(
      api.POST('/api/deliveries/{delivery_id}/copy', {
        params: { path: { delivery_id: props.delivery.delivery_id } },
        body: {
          client: name.value,
          email: mail ? email.value.trim() : '',
          subject: props.delivery.subject,
          words: '',
        },
      }),
    )
    await queries.invalidateQueries({ queryKey: ['deliveries'] })
    emit('close')
  } catch (error) {
    fault.value = (error as Told).message
  }
  busy.value = false
}
</script>

<template>
  <DialogBox title="Once more, as it was" :width="480" @close="emit('close')">
    <div class="framed again">
      <RecipientFields v-model:name="name" v-model:email="email" />
      <p class="does">
        <ActButton strong :disabled="busy" @click="send(true)">Send by e-mail</ActButton>
        <ActButton :disabled="busy" @click="send(false)">I hand it over myself</ActButton>
      </p>
      <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
    </div>
  </DialogBox>
</template>

<style scoped>
.again {
  display: grid;
  gap: 10px;
}
.again :deep(label) {
  display: grid;
  gap: 2px;
  font-size: var(--small);
}
.does {
  display: flex;
  gap: 14px;
}
</style>
