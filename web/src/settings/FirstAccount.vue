<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { ref } from 'vue'
import type { Told } from '@/shared/api/client'
import { useSession } from '@/session/useSession'

/** Where nobody signs in yet: one's own account first, so that colleagues can be let in. */
const { makeFirst } = useSession()
const code = ref('')
const name = ref('')
const password = ref('')
const fault = ref('')
async function make() {
  fault.value = ''
  try {
    await makeFirst(code.value, name.value, password.value)
  } catch (error) {
    fault.value = (error as Told).message
  }
}
</script>

<template>
  <p class="quiet">
    Nobody has to sign in here: whoever sits at this machine works as the folder’s owner. To let colleagues
    in, make your own account first. From then on everybody signs in.
  </p>
  <form class="new" aria-label="The first account" @submit.prevent="make">
    <label>
      Code, from where Rain Porch was started
      <TextField v-model="code" required maxlength="40" autocomplete="off" spellcheck="false" />
    </label>
    <label>Your name <TextField v-model="name" required maxlength="80" autocomplete="username" /></label>
    <label>
      Password
      <TextField
        v-model="password"
        type="password"
        required
        maxlength="200"
        autocomplete="new-password"
        placeholder="ten signs or more"
      />
    </label>
    <ActButton type="submit">Make my account</ActButton>
  </form>
  <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
</template>

<style scoped>
.new {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  margin: 10px 0 8px;
}
label {
  display: grid;
  font-size: var(--small);
}
</style>
