<script setup lang="ts">
import { later } from '@/shared/useReaching'
import { periodWords } from '@/shared/format'
import LinkButton from '@/shared/ui/LinkButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import Ways from '@/shared/Ways.vue'
import { FRESH, type View } from '../useView'
import MonthHeat from './MonthHeat.vue'
import ValueSpread from './ValueSpread.vue'

/** One measure pulled up: over places, bands and years, as a heat of months, and how the values behind it lie. */
const props = defineProps<{ view: View; told: Docs['GlanceDoc']; measure: string }>()
const emit = defineEmits<{
  close: []
  pull: [measure: string]
  open: [
    ask: { measure: string; start: string; end: string; view?: View; place?: string; whole?: boolean },
    title: string,
  ]
}>()
const MarketChart = later(() => import('../MarketChart.vue'))
const MOST = 5
const label = computed(() => (props.told.months.labels[props.measure] as [string, string])[0])
const labels = computed(() => Object.entries(props.told.months.labels) as [string, [string, string]][])
const spreads = computed(
  () => /^(mean|median)_/.test(props.measure) && (props.told.months.labels[props.measure]?.[1] ?? '') !== '',
)
const WAYS = computed(() => ({
  places: 'Places',
  size: 'By size',
  price: 'By price',
  years: 'Years',
  heat: 'Month by month',
  ...(spreads.value ? { spread: 'How they lie' } : {}),
}))
const chosen = ref<string>('places')
const way = computed({
  get: () => (chosen.value in WAYS.value ? chosen.value : 'places'),
  set: (to) => (chosen.value = to),
})
const smooth = ref<1 | 3 | 12>(3)
/** The view's own places where it has several, else those where most closed, the view's own first. */
const places = computed(() => {
  const own = props.view.places ?? []
  if (own.length > 1) return own
  const by = [...props.told.places.places].sort(
    (a, b) => (b.values.closings?.value ?? 0) - (a.values.closings?.value ?? 0),
  )
  return [...new Set([...own, ...by.map((p) => p.place)])].slice(0, MOST)
})
const asked = computed<View>(() => {
  const base: View = { ...FRESH, ...props.view, measures: [props.measure], by: 'month', series: '' }
  const plain = { ...base, split: '' as const, overlay: false, smooth: smooth.value, together: false }
  if (way.value === 'places') return { ...plain, places: places.value, shapes: [], drawn: '', years: 5 }
  if (way.value === 'years') return { ...base, split: '', overlay: true, smooth: 1, years: 4 }
  return {
    ...base,
    overlay: false,
    smooth: smooth.value,
    split: way.value === 'price' ? 'price' : 'living_area',
  }
})
const lines = computed(() => ['places', 'size', 'price', 'years'].includes(way.value))
const answer = useQuery({
  queryKey: ['market-view', asked],
  queryFn: () => got(api.POST('/api/market/view', { body: asked.value })),
  placeholderData: keepPreviousData,
  enabled: lines,
  retry: false,
})
const at = ref<number | null>(null)
function open(period: number, line: number) {
  const l = answer.data.value?.lines[line]
  const p = answer.data.value?.periods[period]
  if (!l || !p) return
  const ofYear = (day: string) => `${l.name}${day.slice(4)}`.replace('-02-29', '-02-28')
  const [start, end] = way.value === 'years' ? [ofYear(p.start), ofYear(p.end)] : [p.start, p.end]
  emit(
    'open',
    {
      measure: props.measure,
      start,
      end,
      view: { ...asked.value, where: [...asked.value.where!, ...l.where!] },
      place: l.place ?? '',
      whole: l.whole ?? false,
    },
    `${label.value}, ${way.value === 'years' ? periodWords(start.slice(0, 7)) : `${l.part ? `${l.part}, ` : ''}${periodWords(p.period)}`}`,
  )
}
</script>

<template>
  <section class="sheet up" :aria-label="`Pulled up: ${label}`">
    <div class="bar">
      <ChoiceField
        :model-value="measure"
        class="which"
        aria-label="Measure that is pulled up"
        @chosen="emit('pull', String($event))"
      >
        <option v-for="[name, [words]] in labels" :key="name" :value="name">{{ words }}</option>
      </ChoiceField>
      <Ways v-model="way" :ways="WAYS" label="Ways to look at a measure" />
      <label v-if="lines && way !== 'years'" class="small">
        smoothed over
        <ChoiceField v-model="smooth" aria-label="Months of smoothing" @chosen="smooth = Number($event) as 1">
          <option :value="1">nothing</option>
          <option :value="3">3 months</option>
          <option :value="12">12 months</option>
        </ChoiceField>
      </label>
      <LinkButton class="back" @click="emit('close')">all measures</LinkButton>
    </div>
    <p v-if="answer.isError.value && lines" class="lamp" role="alert">{{ answer.error.value?.message }}</p>
    <MonthHeat
      v-if="way === 'heat'"
      :view="view"
      :measure="measure"
      @open="(ask, title) => emit('open', ask, title)"
    />
    <ValueSpread v-else-if="way === 'spread'" :view="view" :measure="measure" :told="told.headline" />
    <MarketChart
      v-else-if="answer.data.value"
      class="chart"
      :told="answer.data.value"
      :at="at"
      @at="at = $event"
      @open="open"
    />
  </section>
</template>

<style scoped>
.up {
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 10px;
  padding: 12px 14px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
}
.which {
  font-weight: 600;
}
.bar select {
  min-height: 24px;
  color: inherit;
  background: rgb(var(--v-theme-mist));
}
.back {
  margin-left: auto;
}
.chart {
  min-height: 320px;
}
</style>
