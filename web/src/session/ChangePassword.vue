<script setup lang="ts">
import { vFocus } from '@/shared/vFocus'
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import LabelledField from '@/shared/ui/fields/LabelledField.vue'
import { ref } from 'vue'
import { api, got, type Told } from '@/shared/api/client'

const emit = defineEmits<{ close: [] }>()
const old = ref('')
const next = ref('')
const fault = ref('')
async function change() {
  fault.value = ''
  try {
    await got(api.PUT('/api/password', { body: { old: old.value, new: next.value } }))
    emit('close')
  } catch (error) {
    fault.value = (error as Told).message
  }
}
</script>

<template>
  <DialogBox title="Change the password" :width="420" @close="emit('close')">
    <form class="form" @submit.prevent="change">
      <LabelledField
        v-model="old"
        v-focus
        label="As it is now"
        type="password"
        required
        autocomplete="current-password"
        maxlength="200"
      />
      <LabelledField
        v-model="next"
        label="The new one"
        type="password"
        required
        autocomplete="new-password"
        maxlength="200"
      />
      <p class="quiet small">Ten signs or more. You are signed out everywhere else.</p>
      <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
      <ActButton strong type="submit">Change it</ActButton>
    </form>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
</style>
