<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { vFocus } from '@/shared/vFocus'
import { computed, ref } from 'vue'
import { fact } from '@/shared/format'
import { useFields } from '@/shared/useFields'
import { useFinding } from '../useFinding'
import { useProposals } from './useProposals'
import type { Search, SearchTools } from './useSearch'

const props = defineProps<{ search: SearchTools }>()
const emit = defineEmits<{ added: [part: string]; close: [] }>()
const { home } = useFinding()
const typed = ref('')
const fields = useFields()
const proposals = useProposals()
const PLACES: [string, string][] = [
  ['areas', 'In a named area, building, city or postal code'],
  ['not_areas', 'Not in a named area'],
  ['fences', 'Not across a highway, river or railway'],
  ['parcels', 'Parcel numbers from … to …'],
  ['windows.now', 'Kinds of record and dates'],
  ['home_kinds', 'Kinds of home'],
]
const taken = computed(() => new Set((props.search.draft.value?.criteria ?? []).map((c) => c.field)))
const choices = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  const matches = (label: string) => words.every((w) => label.toLowerCase().includes(w))
  return [
    ...PLACES.filter(([, label]) => matches(label)).map(([part, label]) => ({ part, label, note: '' })),
    ...(fields.data.value ?? [])
      .filter((f) => (f.searched || f.kind === 'text') && matches(f.label))
      .map((f) => ({
        part: f.name,
        label: f.label,
        note: taken.value.has(f.name) ? 'in the search' : shown(home.value?.subject.facts[f.name], f.kind),
      })),
  ]
})
const shown = (value: unknown, kind: string) => (value === undefined ? '' : fact(value, kind))
async function choose(part: string | undefined) {
  if (!part) return
  if (!PLACES.some(([p]) => p === part)) {
    const field = fields.data.value?.find((f) => f.name === part)
    // who types faster than the proposals come waits for them: a limit is never left blank for want of a moment
    const told = proposals.data.value ?? (await proposals.refetch()).data
    const like = told?.fields[part]
    if (field?.kind !== 'text' && !taken.value.has(part))
      await props.search.take(
        props.search.withCriterion(part, like ?? { field: part, words: [], must_be_known: false }),
      )
  }
  emit('added', part)
}
// closed at once: an answer that comes later must not close what was opened meanwhile
function take(search: Search) {
  emit('close')
  void props.search.take(search)
}
const all = () => take(proposals.data.value?.everything as Search)
const afresh = () => take(proposals.data.value?.proposed as Search)
</script>

<template>
  <div class="sheet raised pa-3 box">
    <TextField
      v-model="typed"
      v-focus
      aria-label="Part of a field’s name"
      placeholder="Type part of a name: garage, pool, remarks …"
      @keydown.enter.prevent="choose(choices[0]?.part)"
      @keydown.esc="emit('close')"
    />
    <ul>
      <li v-for="c in choices" :key="c.part">
        <PressArea @click="choose(c.part)">
          <span>{{ c.label }}</span><span class="cedar">{{ c.note }}</span>
        </PressArea>
      </li>
      <li v-if="!choices.length" class="quiet">No field has “{{ typed }}” in its name.</li>
    </ul>
    <p class="foot">
      <LinkButton :disabled="!proposals.data.value" @click="all"> Match everything </LinkButton>
      <LinkButton :disabled="!proposals.data.value" @click="afresh">
        Start again from the proposed search
      </LinkButton>
    </p>
  </div>
</template>

<style scoped>
.box {
  width: 380px;
}
input {
  width: 100%;
  padding: 7px 10px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0;
  max-height: 280px;
  overflow: auto;
}
li button {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  width: 100%;
  padding: 4px 8px;
  border-radius: var(--corner);
  text-align: left;
}
li button:hover,
li button:focus-visible {
  background: rgb(var(--v-theme-mist));
}
.foot {
  display: flex;
  justify-content: space-between;
}
</style>
