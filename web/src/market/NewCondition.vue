<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { vFocus } from '@/shared/vFocus'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, got } from '@/shared/api/client'
import { number } from '@/shared/format'
import { noNumber, typedNumber, typedRange } from '@/shared/typed'
import { localHead } from '@/shared/localForm'

/** A condition on the homes of a view: a range for numbers, words chosen from those of the records, yes or no. */
interface Field {
  name: string
  label: string
  kind: string
  unit: string
}
const props = defineProps<{ fields: Field[] }>()
const emit = defineEmits<{ add: [made: string[]]; close: [] }>()
const SELLERS = { owner: 0, builder: 0, bank: 0, auction: 0 }
const name = ref('living_area')
const field = computed(() => props.fields.find((f) => f.name === name.value))
const numeric = computed(() => ['number', 'money', 'year'].includes(field.value?.kind ?? ''))
const low = ref('')
const high = ref('')
const chosen = ref<string[]>([])
const not = ref(false)
const fault = ref('')
watch(name, () => {
  low.value = high.value = fault.value = ''
  chosen.value = []
})
const words = useQuery({
  queryKey: ['words', name, ''],
  queryFn: () => got(api.GET('/api/words', { params: { query: { field: name.value } } })),
  enabled: computed(() => field.value?.kind === 'word' && name.value !== 'seller'),
  staleTime: Infinity,
})
const offered = computed<Record<string, number>>(() =>
  field.value?.kind === 'yes_no'
    ? { yes: 0, no: 0 }
    : name.value === 'seller'
      ? SELLERS
      : (words.data.value ?? {}),
)
const toggle = (word: string) =>
  (chosen.value = chosen.value.includes(word)
    ? chosen.value.filter((w) => w !== word)
    : [...chosen.value, word])
function ranged(): string[] {
  const unit = field.value?.unit ?? ''
  const typed = [low.value, high.value].map((t) => typedRange(t, undefined, unit)).find((r) => r !== null)
  const [a, b] = typed
    ? [typed.low, typed.high]
    : [typedNumber(low.value, unit), typedNumber(high.value, unit)]
  const wrong = Number.isNaN(a) ? low.value : Number.isNaN(b) ? high.value : null
  if (wrong !== null) fault.value = noNumber(wrong)
  else if (a !== null && b !== null && a > b)
    fault.value = `${number(a)} to ${number(b)} is upside down: swap the two.`
  else if (a === null && b === null) fault.value = 'Give one end at least.'
  else
    return [
      ...(a === null ? [] : [`${name.value} >= ${a}`]),
      ...(b === null ? [] : [`${name.value} <= ${b}`]),
    ]
  return []
}
function said(): string[] {
  const [first] = chosen.value
  if (!first) fault.value = 'Choose a word at least.'
  else if (not.value) return chosen.value.map((w) => `${name.value} != ${w}`)
  else
    return [
      chosen.value.length === 1 ? `${name.value} = ${first}` : `${name.value} in ${chosen.value.join(', ')}`,
    ]
  return []
}
function add() {
  fault.value = ''
  const made = numeric.value ? ranged() : said()
  if (made.length) emit('add', made)
}
</script>

<template>
  <form
    class="sheet box"
    role="dialog"
    aria-label="A condition"
    @submit.prevent="add"
    @keydown.esc.stop="emit('close')"
  >
    <label>
      Only homes whose
      <ChoiceField v-model="name" v-focus aria-label="Field">
        <option v-for="f in fields" :key="f.name" :value="f.name">{{ f.label }}</option>
      </ChoiceField>
    </label>
    <p v-if="numeric" class="ends">
      lies between <TextField v-model="low" aria-label="From" placeholder="any" /> and
      <TextField v-model="high" aria-label="To" placeholder="any" />
      <span v-if="field?.unit && field.unit !== '$'" class="quiet">{{ localHead(field.unit) }}</span>
    </p>
    <template v-else>
      <label v-if="field?.kind === 'word'"><CheckBox v-model="not" /> is none of</label>
      <ul :aria-label="`Words of ${field?.label}`">
        <li v-for="(n, word) in offered" :key="word">
          <label>
            <CheckBox
              :model-value="chosen.includes(String(word))"
              @update:model-value="toggle(String(word))"
            />
            {{ word }} <span v-if="n" class="quiet">{{ number(n) }}</span>
          </label>
        </li>
      </ul>
    </template>
    <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
    <p class="acts">
      <ActButton type="submit">Add</ActButton>
      <LinkButton @click="emit('close')">Cancel</LinkButton>
    </p>
  </form>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
  padding: 10px 14px;
}
.ends input {
  width: 90px;
}
.box input:not([type='checkbox']),
select {
  padding: 3px 7px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
ul {
  list-style: none;
  padding: 0;
  max-height: 180px;
  overflow: auto;
  columns: 2;
}
.acts {
  display: flex;
  gap: 14px;
}
</style>
