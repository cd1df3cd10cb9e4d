<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'

/** The same papers once more, as they went out: to the same people, or to others. */
const props = defineProps<{ delivery: Docs['DeliveryDoc'] }>()
const emit = defineEmits<{ close: [] }>()
const queries = useQueryClient()
const clients = useQuery({ queryKey: ['clients'], queryFn: () => got(api.GET('/api/clients')) })
const name = ref(props.delivery.client)
const email = ref(props.delivery.email)
const fault = ref('')
const busy = ref(false)
watch(name, () => {
  const known = (clients.data.value ?? []).find((c) => c.name === name.value)
  if (known?.email) email.value = known.email
})
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
      <label>To <TextField v-model="name" list="copy-clients" maxlength="200" /></label>
      <label>E-mail <TextField v-model="email" type="email" maxlength="254" /></label>
      <datalist id="copy-clients">
        <option v-for="c in clients.data.value ?? []" :key="c.client_id" :value="c.name">
          {{ c.email }}
        </option>
      </datalist>
      <p class="does">
        <ActButton strong :disabled="busy" @click="send(true)">Send by e-mail</ActButton>
        <ActButton :disabled="busy" @click="send(false)">I hand it over myself</ActButton>
      </p>
      <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
    </div>
  </DialogBox>
</template>

<style scoped>
.again,
.again label {
  display: grid;
  gap: 10px;
}
.again label {
  gap: 2px;
  font-size: var(--small);
}
.does {
  display: flex;
  gap: 14px;
}
</style>
