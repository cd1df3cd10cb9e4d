<script setup lang="ts">
import { periodWords } from '@/shared/format'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { connect } from 'echarts/core'
import { computed } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { monthDays } from '../periods'
import { shownAs, type View } from '../useView'
import PulledUp from './PulledUp.vue'
import SmallChart from './SmallChart.vue'
import { localHead } from '@/shared/localForm'

/** What the bulletin of a view tells, live: its sentences, its key figures, every measure by month; each is pulled up by a press. */
const props = defineProps<{ view: View; up: string }>()
const emit = defineEmits<{
  open: [
    ask: { measure: string; start: string; end: string; view?: View; place?: string; whole?: boolean },
    title: string,
  ]
  pull: [measure: string]
}>()
const told = useQuery({
  queryKey: ['glance', computed(() => props.view)],
  queryFn: () => got(api.POST('/api/market/glance', { body: props.view })),
  placeholderData: keepPreviousData,
  retry: false,
})
const GROUP = 'months of a market'
connect(GROUP) // hovering over a month shows it in all charts
const ORDER = [
  'median_price',
  'median_price_per_sqft',
  'same_home_price',
  'closings',
  'new_listings',
  'contracts',
  'months_of_supply',
  'for_sale',
  'median_days',
  'median_share_of_list',
  'median_share_of_original',
  'share_with_price_cut',
]
const glance = computed(() => told.data.value as Docs['GlanceDoc'] | undefined)
const head = computed(() => told.data.value?.headline)
const months = computed(() => told.data.value?.months.months ?? [])
const charts = computed(() =>
  ORDER.filter((name) => months.value.some((m) => m.values[name]?.value != null)).map((name) => {
    const [label, unit] = told.data.value!.months.labels[name] as [string, string]
    return { name, label: localHead(label), unit }
  }),
)
const figures = computed(() => head.value?.figures.filter((f) => f.value.value !== null) ?? [])
const openFigure = (f: { measure: string; label: string }) =>
  emit(
    'open',
    { measure: f.measure, start: head.value!.start, end: head.value!.end },
    `${localHead(f.label)}, ${head.value!.span}`,
  )
const PLACE_COLUMNS = [
  { measure: 'closings', words: 'Closings', unit: '' },
  { measure: 'median_price', words: 'Median price', unit: '$' },
  { measure: 'median_days', words: 'Median days', unit: 'days' },
  { measure: 'months_of_supply', words: '', unit: 'months' },
]
/** Its own short word, else the measure's label. */
const named = (c: { measure: string; words: string }) =>
  c.words || (glance.value?.places.labels[c.measure]?.[0] ?? '')
const places = computed(() => {
  const of = glance.value?.places
  if (!of?.places.length) return []
  const by = (p: Docs['PlaceDoc']) => p.values.median_price?.value ?? 0
  return [...[...of.places].sort((a, b) => by(b) - by(a)), of.whole]
})
/** The records of one place, or of everywhere, without what the view is drawn inside of where it is everywhere. */
function openPlace(place: string, c: { measure: string; words: string }) {
  const whole = place === ''
  const view = whole ? { ...props.view, shapes: [], drawn: '' } : props.view
  const ask = { measure: c.measure, start: head.value!.start, end: head.value!.end, view, place, whole }
  emit('open', ask, `${named(c)}, ${place || 'all together'}`)
}
function openMonth(c: { name: string; label: string }, i: number) {
  const period = months.value[i]!.period
  emit('open', { measure: c.name, ...monthDays(period) }, `${c.label}, ${periodWords(period)}`)
}
</script>

<template>
  <div class="glance">
    <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
    <p v-else-if="!told.data.value" class="quiet">Counting …</p>
    <PulledUp
      v-else-if="up && glance?.months.labels[up]"
      :view="view"
      :told="glance"
      :measure="up"
      @open="(ask, title) => emit('open', ask, title)"
      @close="emit('pull', '')"
      @pull="emit('pull', $event)"
    />
    <div v-else-if="head" class="both">
      <section class="sheet head" aria-label="What matters">
        <h2 class="says">{{ head.headline }}</h2>
        <p v-if="head.why">{{ head.why }}</p>
        <p v-if="head.pace">{{ head.pace }}</p>
        <template v-if="head.seller !== head.buyer">
          <p v-if="head.seller"><b>For a seller:</b> {{ head.seller }}</p>
          <p v-if="head.buyer"><b>For a buyer:</b> {{ head.buyer }}</p>
        </template>
        <p v-else-if="head.seller">{{ head.seller }}</p>
        <dl class="figures">
          <div v-for="f in figures" :key="f.measure">
            <dt class="quiet small">{{ localHead(f.label) }}</dt>
            <dd>
              <PressArea
                class="figure"
                :title="`The records behind it: ${localHead(f.label)}, ${head.span}`"
                @click="openFigure(f)"
              >
                {{ shownAs(f.value.value, f.unit) }}
              </PressArea>
              <span class="small">{{
                f.change ? `${f.change.words} on the year` : `from ${f.value.n}`
              }}</span>
              <span v-if="f.whole?.value != null && f.unit" class="quiet small">
                {{ head.everywhere }}: {{ shownAs(f.whole.value, f.unit) }}
              </span>
            </dd>
          </div>
        </dl>
        <p class="quiet small">Over {{ head.span }}, beside the same months a year before.</p>
      </section>
      <section class="charts" aria-label="Every measure by month">
        <article v-for="c in charts" :key="c.name" class="sheet">
          <PressArea class="title" :title="`Pull up: ${c.label}`" @click="emit('pull', c.name)">
            {{ c.label }} <span class="quiet small">pull up</span>
          </PressArea>
          <SmallChart
            :months="months"
            :measure="c.name"
            :label="c.label"
            :unit="c.unit"
            :group="GROUP"
            @open="openMonth(c, $event)"
          />
        </article>
        <article v-if="places.length" class="sheet wide">
          <h3>Place by place</h3>
          <p v-if="glance?.places.sentence" class="small">{{ glance.places.sentence }}</p>
          <PlainTable class="small" aria-label="Place by place">
            <thead>
              <tr>
                <th>Place</th>
                <th v-for="c in PLACE_COLUMNS" :key="c.measure" class="num">{{ named(c) }}</th>
                <th class="num">Median on the year</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="p in places" :key="p.place">
                <th scope="row">{{ p.place || 'all together' }}</th>
                <td v-for="c in PLACE_COLUMNS" :key="c.measure" class="num">
                  <PressArea
                    v-if="p.values[c.measure]?.value != null"
                    class="cell"
                    :title="`The records behind it: ${named(c)}, ${p.place || 'all together'}`"
                    @click="openPlace(p.place, c)"
                  >
                    {{ shownAs(p.values[c.measure]!.value, c.unit) }}
                  </PressArea>
                </td>
                <td class="num">{{ p.change?.words ?? 'too few' }}</td>
              </tr>
            </tbody>
          </PlainTable>
        </article>
      </section>
    </div>
  </div>
</template>

<style scoped>
.glance {
  min-height: 0;
  display: grid;
}
.both {
  min-height: 0;
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr);
  gap: 18px;
}
.head {
  overflow: auto;
  padding: 14px 18px;
  display: grid;
  gap: 10px;
  align-content: start;
}
.says {
  font-size: var(--title-s);
  line-height: 1.35;
}
.figures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 14px;
}
dd {
  margin: 0;
  display: grid;
  justify-items: start;
}
.figure {
  font-size: var(--title-s);
  font-weight: 600;
  color: rgb(var(--v-theme-rain));
  cursor: pointer;
}
.figure:hover,
.cell:hover,
.title:hover {
  text-decoration: underline;
}
/* goes down only: what is wider, a table, goes sideways in its own sheet */
.charts {
  overflow: hidden auto;
  display: grid;
  grid-auto-rows: max-content;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 12px;
  align-content: start;
}
article {
  min-width: 0;
  padding: 8px 10px 2px;
}
.wide h3 {
  margin: 4px 0;
}
.wide {
  grid-column: 1 / -1;
  overflow-x: auto;
  padding-bottom: 8px;
}
.cell {
  cursor: pointer;
}
.title {
  display: flex;
  width: 100%;
  justify-content: space-between;
  font-weight: 600;
  text-align: left;
  cursor: pointer;
}
.title span {
  white-space: nowrap;
}
@media (max-width: 900px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
