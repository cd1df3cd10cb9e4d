<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import LabelledField from '@/shared/ui/fields/LabelledField.vue'
import RangeSlider from '@/shared/ui/fields/RangeSlider.vue'
import { vFocus } from '@/shared/vFocus'
import { computed, ref } from 'vue'
import { fact, number } from '@/shared/format'
import { localHead, isMetric, sizeOf } from '@/shared/localForm'
import { noNumber, typedNumber, typedRange } from '@/shared/typed'
import { useSpread } from '../search/useSpread'
import { useFinding } from '../useFinding'
import { useEnds } from './useEnds'
import type { SearchTools } from '../search/useSearch'

const props = defineProps<{ part: string; search: SearchTools; mine?: number }>()
const emit = defineEmits<{ fault: [text: string]; taken: [] }>()
const { search: held } = useFinding()
/** The fields start from what is saved and are the agent's from then on: an answer that comes late rewrites nothing. */
const saved = held.value?.criteria?.find((c) => c.field === props.part)
const unit = computed(() => props.search.field(props.part)?.unit ?? '')
const year = props.part.startsWith('year_')
const shown = (value: number | null | undefined) =>
  value === null || value === undefined ? '' : year ? String(value) : fact(value, 'number', unit.value)
const asNumber = (value: unknown) => (typeof value === 'number' ? value : null)
const low = ref(shown(asNumber(saved?.low)))
const high = ref(shown(asNumber(saved?.high)))
const read = (text: string) => typedNumber(text, unit.value)

const spread = useSpread(() => props.part)
const ends = computed<[number, number]>(() => [spread.data.value?.low ?? 0, spread.data.value?.high ?? 1])
const step = computed(
  () => (ends.value[1] - ends.value[0]) / Math.max(1, spread.data.value?.bins.length ?? 1),
)
const handles = computed<[number, number]>(() => {
  const [a, b] = [read(low.value), read(high.value)]
  const within = (v: number) => Math.min(ends.value[1], Math.max(ends.value[0], v))
  const from = within(a === null || Number.isNaN(a) ? ends.value[0] : a)
  const to = within(b === null || Number.isNaN(b) ? ends.value[1] : b)
  return from <= to ? [from, to] : [to, from]
})
const bars = computed(() => {
  const bins = spread.data.value?.bins ?? []
  const most = Math.max(...bins, 1)
  return bins.map((n, i) => {
    const middle = ends.value[0] + (i + 0.5) * step.value
    return {
      height: n ? Math.max(3, (100 * n) / most) : 0,
      inside: middle >= handles.value[0] && middle <= handles.value[1],
    }
  })
})
const here = computed(() => {
  if (props.mine === undefined || ends.value[1] <= ends.value[0]) return null
  const share = (props.mine - ends.value[0]) / (ends.value[1] - ends.value[0])
  return share < 0 || share > 1 ? null : 100 * share
})
function dragged(values: number[]) {
  const [a, b] = [values[0]!, values[1]!]
  // the slider rounds what is typed to its own steps: that is no drag
  const typed = handles.value
  if (Math.abs(a - typed[0]) < step.value && Math.abs(b - typed[1]) < step.value) return
  low.value = a <= ends.value[0] ? '' : shown(Math.round(a))
  high.value = b >= ends.value[1] ? '' : shown(Math.round(b))
  props.search.slide(props.search.withRange(props.part, read(low.value), read(high.value)))
}
/** The one number that stands, where the other end is open: people look for three bedrooms more often than for three and more. */
const single = computed(() => {
  const [a, b] = [read(low.value), read(high.value)]
  const one = a === null ? b : b === null ? a : null
  return one === null || Number.isNaN(one) || unit.value ? null : one
})
function takeOnly(one: number) {
  low.value = high.value = shown(one)
  take()
}
function take() {
  // a range typed into one field fills both
  for (const text of [low.value, high.value]) {
    const range = typedRange(text, props.mine, unit.value)
    if (!range) continue
    low.value = shown(range.low)
    high.value = shown(range.high)
    break
  }
  const [a, b] = [read(low.value), read(high.value)]
  const wrong = Number.isNaN(a) ? low.value : Number.isNaN(b) ? high.value : null
  if (wrong !== null) emit('fault', `${noNumber(wrong)} Leave an end empty for no limit.`)
  else void props.search.take(props.search.withRange(props.part, a, b)).then((ok) => ok && emit('taken'))
}

const { pair, changed, left } = useEnds(() => {
  const [a, b] = [read(low.value), read(high.value)]
  return a !== null && b !== null && a > b
}, take)
</script>

<template>
  <div>
    <div v-if="bars.length > 1" class="spread" aria-hidden="true">
      <i v-for="(b, i) in bars" :key="i" :class="{ inside: b.inside }" :style="{ height: `${b.height}%` }" />
      <b v-if="here !== null" :style="{ left: `${here}%` }" />
    </div>
    <RangeSlider
      v-if="bars.length > 1"
      :at="handles"
      :ends="ends"
      :step="step"
      :name="`Limits of ${search.label(part)}`"
      @slid="dragged"
    />
    <div ref="pair" class="range" @focusout="left">
      <LabelledField v-model="low" v-focus label="From" @change="changed" />
      <LabelledField v-model="high" label="To" @change="changed" />
    </div>
    <p v-if="single !== null" class="small mt-1">
      <LinkButton @click="takeOnly(single)">only {{ shown(single) }}</LinkButton>
    </p>
    <p class="quiet small mt-1">
      Or type a range: {{ number(1500) }}-{{ number(1900) }}, {{ number(1500) }}+{{
        mine === undefined ? '' : ', ±20% of this home’s'
      }}{{ isMetric() && sizeOf(unit) !== 1 ? `; in ${localHead(unit)}` : '' }}.
    </p>
  </div>
</template>

<style scoped>
.spread {
  position: relative;
  display: flex;
  align-items: flex-end;
  gap: 1px;
  height: 56px;
  margin: 6px 8px 0;
}
.spread i {
  flex: 1;
  background: rgb(var(--v-theme-line));
}
.spread i.inside {
  background: rgb(var(--v-theme-rain));
}
.spread b {
  position: absolute;
  top: -4px;
  bottom: -2px;
  width: 2px;
  background: rgb(var(--v-theme-cedar));
}
.range {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin-top: 8px;
}
</style>
