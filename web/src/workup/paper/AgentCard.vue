<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, got, type Docs } from '@/shared/api/client'
import TypedInput from '@/shared/TypedInput.vue'

/** The agent's name, licence and contact: the same on every report. */
const client = useQueryClient()
const card = useQuery({ queryKey: ['card'], queryFn: () => got(api.GET('/api/card')) })
const FIELDS: [keyof Docs['CardDoc'], string, number][] = [
  ['name', 'Your name', 100],
  ['licence', 'Licence', 60],
  ['contact', 'Contact', 200],
]
async function save(to: Partial<Docs['CardDoc']>) {
  await got(api.PUT('/api/card', { body: { ...card.data.value!, ...to } }))
  await client.invalidateQueries({ queryKey: ['card'] })
  await client.invalidateQueries({ queryKey: ['workup'] })
}
</script>

<template>
  <details v-if="card.data.value" class="card">
    <summary>You on paper: {{ card.data.value.name || 'no name yet' }}</summary>
    <label v-for="[name, label, most] in FIELDS" :key="name">
      {{ label }}
      <TypedInput :value="card.data.value[name]" :maxlength="most" @typed="save({ [name]: $event })" />
    </label>
  </details>
</template>

<style scoped>
.card {
  margin-top: 10px;
  font-size: 13px;
}
summary {
  cursor: pointer;
}
label {
  display: grid;
  gap: 2px;
  margin-top: 6px;
  font-size: 12px;
}
input {
  padding: 5px 8px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: inherit;
}
</style>
