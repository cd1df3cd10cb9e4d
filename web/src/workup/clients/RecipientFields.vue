<script setup lang="ts">
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery } from '@tanstack/vue-query'
import { watch } from 'vue'
import { api, got } from '@/shared/api/client'

/** To whom a report goes: a name, chosen from the clients that are known or typed, and an address, which is theirs where it is known. */
const name = defineModel<string>('name', { required: true })
const email = defineModel<string>('email', { required: true })
const clients = useQuery({ queryKey: ['clients'], queryFn: () => got(api.GET('/api/clients')) })
watch(
  [clients.data, name],
  () => {
    const known = (clients.data.value ?? []).find((c) => c.name === name.value)
    if (known?.email) email.value = known.email
  },
  { immediate: true },
)
</script>

<template>
  <label>
    To
    <TextField v-model="name" list="recipients" maxlength="200" placeholder="Name of the client" />
  </label>
  <label>
    E-mail
    <TextField v-model="email" type="email" maxlength="254" placeholder="name@place.example" />
  </label>
  <datalist id="recipients">
    <option v-for="c in clients.data.value ?? []" :key="c.client_id" :value="c.name">{{ c.email }}</option>
  </datalist>
</template>
