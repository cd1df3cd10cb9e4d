<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import ColourField from '@/shared/ui/fields/ColourField.vue'
import FilePick from '@/shared/ui/FilePick.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told, type Docs, withFile } from '@/shared/api/client'
import { inTurn, useDraft } from '@/shared/useDraft'

/** The agent's name, contact, pictures and colour: the same on every report. */
type Card = Docs['CardDoc']
const client = useQueryClient()
const card = useQuery({ queryKey: ['card'], queryFn: () => got(api.GET('/api/card')) })
const fault = ref('')
const FIELDS: ['name' | 'licence' | 'phone' | 'email' | 'contact', string, number][] = [
  ['name', 'Your name', 100],
  ['licence', 'Licence', 60],
  ['phone', 'Phone', 60],
  ['email', 'E-mail, to which answers go', 254],
  ['contact', 'Anything more', 200],
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
  try {
    const told = await got(api.POST('/api/card/pictures', withFile(file)))
    await save({ [name]: told.file })
  } catch (error) {
    fault.value = (error as Told).message
  }
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
        <img :src="served(`/api/card/pictures/${held[name]}`)" :alt="label" />
        <LinkButton :aria-label="`Take the ${name} away`" @click="save({ [name]: '' })"> × </LinkButton>
      </template>
    </p>
    <p class="picture">
      <label>
        Colour
        <ColourField
          :colour="held.colour || '#A4572F'"
          aria-label="Your colour"
          @picked="save({ colour: $event })"
        />
      </label>
      <LinkButton v-if="held.colour" @click="save({ colour: '' })">as usual</LinkButton>
      <label class="paper-size">
        Paper
        <ChoiceField
          :model-value="held.size"
          aria-label="Paper size"
          @chosen="save({ size: $event as 'a4' })"
        >
          <option value="us-letter">US Letter</option>
          <option value="a4">A4</option>
        </ChoiceField>
      </label>
    </p>
    <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
  </details>
</template>

<style scoped>
.card {
  margin-top: 10px;
  font-size: var(--text-s);
}
summary {
  cursor: pointer;
}
label {
  display: grid;
  gap: 2px;
  margin-top: 6px;
  font-size: var(--small);
}
input:not([type]) {
  padding: 5px 8px;
  border: var(--line);
  border-radius: var(--corner);
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
  border-bottom: var(--line);
  color: inherit;
}
</style>
