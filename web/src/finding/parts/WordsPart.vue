<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { vFocus } from '@/shared/vFocus'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { number } from '@/shared/format'
import { asTyped } from '@/shared/typed'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useSession } from '@/session/useSession'
import { useSpread } from '../search/useSpread'
import WordOrder from './WordOrder.vue'
import type { SearchTools } from '../search/useSearch'

/** Words of a field, with how many homes around have each; any other of the records by typing part of it. */
const props = defineProps<{ part: string; search: SearchTools; mine?: string }>()
const spread = useSpread(() => props.part)
const text = ref('')
const further = useQuery({
  queryKey: ['words', () => props.part, text],
  queryFn: () => got(api.GET('/api/words', { params: { query: { field: props.part, text: text.value } } })),
  enabled: computed(() => text.value.trim().length > 0),
  placeholderData: keepPreviousData,
})
const taken = computed(() => props.search.criterion(props.part)?.words ?? [])
const words = computed(() => {
  const here = spread.data.value?.words ?? {}
  const wanted = asTyped(text.value)
  const all = new Map<string, { n: number; far: boolean }>()
  // in the order of their counts, whatever is ticked: no row moves under the pointer
  for (const [word, n] of Object.entries(here)) all.set(word, { n, far: false })
  for (const word of taken.value) if (!all.has(word)) all.set(word, { n: 0, far: false })
  if (wanted)
    for (const [word, n] of Object.entries(further.data.value ?? {}))
      if (!all.has(word)) all.set(word, { n, far: true })
  return [...all]
    .map(([word, held]) => ({ word, ...held }))
    .filter((w) => !wanted || taken.value.includes(w.word) || asTyped(w.word).includes(wanted))
    .sort((a, b) => placeOf(a.word) - placeOf(b.word))
})
const { mayImport } = useSession()
const field = computed(() => props.search.field(props.part))
const order = computed(() => field.value?.words ?? [])
/** Where a word stands in the order; all stand alike where there is none. */
function placeOf(word: string) {
  const at = order.value.indexOf(word)
  return at < 0 ? order.value.length : at
}
/** A word and all that are more. */
function andBetter(word: string) {
  const from = order.value.slice(order.value.indexOf(word))
  void props.search.take(props.search.withCriterion(props.part, { words: from, low: null, high: null }))
}
function toggle(word: string) {
  const next = taken.value.includes(word) ? taken.value.filter((w) => w !== word) : [...taken.value, word]
  void props.search.take(props.search.withCriterion(props.part, { words: next, low: null, high: null }))
}
/** Enter takes the first word that holds what is typed, once the records have answered to all of it. */
async function first() {
  const wanted = asTyped(text.value)
  if (!wanted) return
  await further.refetch({ cancelRefetch: false })
  await nextTick()
  const found = words.value.find((w) => asTyped(w.word).includes(wanted) && !taken.value.includes(w.word))
  if (!found || wanted !== asTyped(text.value)) return
  toggle(found.word)
  text.value = ''
}
</script>

<template>
  <TextField
    v-model="text"
    v-focus
    class="find"
    :aria-label="`Part of a word for ${search.label(part)}`"
    placeholder="Type part of a word"
    @keydown.enter.prevent="first"
  />
  <ul class="words">
    <li v-for="w in words" :key="w.word">
      <label>
        <CheckBox :model-value="taken.includes(w.word)" @update:model-value="toggle(w.word)" />
        <span :class="{ cedar: w.word === mine }">{{ w.word }}</span>
        <LinkButton
          v-if="order.includes(w.word) && w.word !== order.at(-1)"
          class="small better"
          :aria-label="`${w.word} and better`"
          @click.prevent="andBetter(w.word)"
        >
          and better
        </LinkButton>
        <b>{{ number(w.n) }}<span v-if="w.far" class="quiet small"> elsewhere</span></b>
      </label>
    </li>
    <li v-if="spread.isSuccess.value && !words.length" class="quiet">
      {{
        text
          ? `No word of the records holds “${text}”.`
          : 'No home around here tells it: type part of a word.'
      }}
    </li>
  </ul>
  <WordOrder v-if="field?.group === 'own' && mayImport" :field="part" :order="order" />
</template>

<style scoped>
.find {
  width: 100%;
  padding: 6px 9px;
  margin-bottom: 6px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
.words {
  list-style: none;
  padding: 0;
  max-height: 230px;
  overflow: auto;
}
label {
  display: grid;
  grid-template-columns: 20px 1fr auto auto;
  align-items: center;
  gap: 4px;
  padding: 2px 0;
}
b {
  grid-column: 4;
  font-weight: 500;
}
.better {
  margin-right: 10px;
}
</style>
