<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import FilePick from '@/shared/FilePick.vue'
import { inTurn, useDraft } from '@/shared/useDraft'
import TypedInput from '@/shared/TypedInput.vue'

/** The agent's name, contact, pictures and colour: the same on every report. */
type Card = Docs['CardDoc']
const client = useQueryClient()
const card = useQuery({ queryKey: ['card'], queryFn: () => got(api.GET('/api/card')) })
const fault = ref('')
const FIELDS: ['name' | 'licence' | 'contact', string, number][] = [
  ['name', 'Your name', 100],
  ['licence', 'Licence', 60],
  ['contact', 'Contact', 200],
]
const PICTURES: ['logo' | 'portrait', string][] = [
  ['logo', 'Logo'],
  ['portrait', 'Portrait'],
]
const turn = inTurn()
const { value: held, change } = useDraft(
  () => card.data.value as Card,
  async (next) => {
    fault.value = ''
    try {
      client.setQueryData(['card'], await turn(() => got(api.PUT('/api/card', { body: next }))))
      await client.invalidateQueries({ queryKey: ['workup'] })
      return true
    } catch (error) {
      fault.value = (error as Told).message
      return false
    }
  },
)
const save = (to: Partial<Card>) => change((now) => ({ ...now, ...to }))
async function add(name: 'logo' | 'portrait', file: File) {
  fault.value = ''
  const answer = await fetch('/api/card/pictures', { method: 'POST', body: file })
  const told = (await answer.json()) as { file?: string; message?: string }
  if (answer.ok && told.file) await save({ [name]: told.file })
  else fault.value = told.message ?? 'The picture could not be read.'
}
</script>

<template>
  <details v-if="card.data.value" class="card">
    <summary>You on paper: {{ held.name || 'no name yet' }}</summary>
    <label v-for="[name, label, most] in FIELDS" :key="name">
      {{ label }}
      <TypedInput :value="held[name]" :maxlength="most" @typed="save({ [name]: $event })" />
    </label>
    <p v-for="[name, label] in PICTURES" :key="name" class="picture">
      <FilePick accept="image/png,image/jpeg,image/webp" @chosen="add(name, $event)">
        {{ label }}: {{ held[name] ? 'another' : 'add' }}
      </FilePick>
      <template v-if="held[name]">
        <img :src="`/api/card/pictures/${held[name]}`" :alt="label" />
        <button
          type="button"
          class="link"
          :aria-label="`Take the ${name} away`"
          @click="save({ [name]: '' })"
        >
          ×
        </button>
      </template>
    </p>
    <p class="picture">
      <label>
        Colour
        <input
          type="color"
          :value="held.colour || '#A4572F'"
          aria-label="Your colour"
          @change="save({ colour: ($event.target as HTMLInputElement).value })"
        />
      </label>
      <button v-if="held.colour" type="button" class="link" @click="save({ colour: '' })">as usual</button>
      <label class="paper-size">
        Paper
        <select
          :value="held.size"
          aria-label="Paper size"
          @change="save({ size: ($event.target as HTMLSelectElement).value as 'a4' })"
        >
          <option value="us-letter">US Letter</option>
          <option value="a4">A4</option>
        </select>
      </label>
    </p>
    <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
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
input:not([type]) {
  padding: 5px 8px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: inherit;
}
.picture {
  display: flex;
  gap: 12px;
  align-items: end;
}
.picture img {
  height: 30px;
  max-width: 90px;
  object-fit: contain;
}
select {
  border-bottom: 1px solid rgb(var(--v-theme-line));
  color: inherit;
}
</style>
