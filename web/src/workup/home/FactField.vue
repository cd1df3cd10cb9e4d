<script setup lang="ts">
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'

/** The agent's word on one fact, typed or chosen as its kind asks; nothing means: as the records say. */
const props = defineProps<{ row: Docs['FactDoc']; faulty: boolean }>()
const emit = defineEmits<{ word: [value: string | number | null]; back: [] }>()
const label = computed(() => `Correct ${props.row.label}`)
const own = computed(() => (props.row.corrected ? props.row.agent : null))
const asked = ref(false)
const words = useQuery({
  queryKey: ['words', () => props.row.field, ''],
  queryFn: () => got(api.GET('/api/words', { params: { query: { field: props.row.field } } })),
  enabled: computed(() => asked.value && props.row.kind === 'word'),
  staleTime: Infinity,
})
const unknown = computed(() => (props.row.corrected && props.row.agent === null ? 'unknown' : ''))
function typed(text: string) {
  const words = text.trim()
  if (words) emit('word', words)
  else if (props.row.corrected) emit('back')
}
function number(value: number | null) {
  if (value !== null) emit('word', value)
  else if (props.row.corrected) emit('back')
}
function chosen(value: string) {
  if (value) emit('word', value === 'yes' ? 1 : 0)
  else emit('back')
}
</script>

<template>
  <ChoiceField
    v-if="row.kind === 'yes_no'"
    :model-value="own === null ? '' : own ? 'yes' : 'no'"
    :aria-label="label"
    :aria-invalid="faulty"
    @chosen="chosen($event)"
  >
    <option value="">as recorded</option>
    <option>yes</option>
    <option>no</option>
  </ChoiceField>
  <template v-else-if="row.kind === 'word' || row.kind === 'text'">
    <TypedInput
      :value="own"
      :placeholder="unknown"
      :list="row.kind === 'word' ? `words-${row.field}` : undefined"
      :aria-label="label"
      :aria-invalid="faulty"
      @focus="asked = true"
      @typed="typed"
    />
    <datalist v-if="row.kind === 'word'" :id="`words-${row.field}`">
      <option v-for="(n, word) in words.data.value ?? {}" :key="word" :value="word">{{ n }}</option>
    </datalist>
  </template>
  <NumberField
    v-else
    :value="own"
    :worded="row.kind"
    :placeholder="unknown"
    :unit="row.unit"
    :aria-label="label"
    :aria-invalid="faulty"
    @number="number"
  />
</template>
