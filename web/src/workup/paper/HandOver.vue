<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told } from '@/shared/api/client'
import Delivered from '../clients/Delivered.vue'
import RecipientFields from '../clients/RecipientFields.vue'
import { useWorkup } from '../useWorkup'

/** The report as it is now is kept for good, and sent where an address is given. */
const emit = defineEmits<{ close: [] }>()
const { id, state, send } = useWorkup()
const queries = useQueryClient()
const name = ref(state.value?.client ?? '')
const email = ref('')
const subject = ref(`${state.value?.address}: what it is worth`)
const words = ref('')
const fault = ref('')
const said = ref('')
const busy = ref(false)
async function deliver(mail: boolean) {
  fault.value = ''
  said.value = ''
  if (mail && !email.value.trim()) {
    fault.value = 'Write the address to which it is to go.'
    return
  }
  busy.value = true
  try {
    if (name.value !== (state.value?.client ?? '')) await send({ change: 'set_client', client: name.value })
    await got(
      api.POST('/api/workups/{workup_id}/deliveries', {
        params: { path: { workup_id: id.value } },
        body: {
          client: name.value,
          email: mail ? email.value.trim() : '',
          subject: subject.value,
          words: words.value,
        },
      }),
    )
    said.value = mail ? 'Kept, and on its way.' : 'Kept as it is now.'
    await queries.invalidateQueries({ queryKey: ['deliveries'] })
    await queries.invalidateQueries({ queryKey: ['workups'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
  busy.value = false
}
</script>

<template>
  <DialogBox title="Hand it over" :width="760" @close="emit('close')">
    <div class="over">
      <p class="quiet small">
        What is handed over is kept as it is now, with the records that it stands on; later work does not
        change it.
      </p>
      <div class="fields framed">
        <RecipientFields v-model:name="name" v-model:email="email" />
        <label class="wide">Subject <TextField v-model="subject" maxlength="200" /></label>
        <label class="wide">
          Message
          <TextField
            v-model="words"
            :rows="4"
            maxlength="10000"
            placeholder="Left empty, a short one is written for you."
          />
        </label>
      </div>
      <p class="does">
        <ActButton :disabled="busy" @click="deliver(true)">Send by e-mail</ActButton>
        <ActButton :disabled="busy" @click="deliver(false)"> I hand it over myself </ActButton>
        <span v-if="said" role="status">{{ said }}</span>
      </p>
      <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
      <h3>Handed over so far</h3>
      <Delivered :workup-id="id" />
    </div>
  </DialogBox>
</template>

<style scoped>
.over {
  display: grid;
  gap: 10px;
}
header,
.does {
  display: flex;
  align-items: baseline;
  gap: 14px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 16px;
}
.fields :deep(label) {
  display: grid;
  font-size: var(--small);
}
.wide {
  grid-column: 1 / 3;
}
h3 {
  margin-top: 8px;
}
</style>
