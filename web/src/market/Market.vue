<script setup lang="ts">
import { later } from '@/shared/useReaching'
import { periodWords } from '@/shared/format'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import Ways from '@/shared/Ways.vue'
import type { DrawnShape } from '@/shared/map/mapShapes'
import Bands from './Bands.vue'
import Behind from './Behind.vue'
import Changed from './Changed.vue'
import DrawPlace from './DrawPlace.vue'
import Bulletins from './bulletins/Bulletins.vue'
import SavedViews from './SavedViews.vue'
import SoFar from './SoFar.vue'
import { give, pngOf } from '@/shared/giving'
import { fileName, shownAs, useView } from './useView'
import ViewFigures from './ViewFigures.vue'
import ViewOptions from './ViewOptions.vue'
import ViewSentence from './ViewSentence.vue'
import { localHead } from '@/shared/localForm'

const Glance = later(() => import('./glance/Glance.vue'))
const MarketChart = later(() => import('./MarketChart.vue'))
const WAYS = {
  chart: 'Chart',
  glance: 'At a glance',
  sofar: 'The year so far',
  bands: 'By size and price',
  changed: 'What changed',
  bulletins: 'Bulletins',
}
const route = useRoute()
const router = useRouter()
const tools = useView()
const { view, answer, told, set, label } = tools
const way = computed({
  get: () => (String(route.query.way ?? '') in WAYS ? (route.query.way as keyof typeof WAYS) : 'chart'),
  set: (to) =>
    void router.push({ query: { ...route.query, way: to === 'chart' ? undefined : to, up: undefined } }),
})
const at = ref<number | null>(null)
const fileNamed = (what = '') => fileName(view.value, label, what)
const number = (name: string) => Number(route.query[name]) || null
/** The home from whose workup the market was opened. */
const home = { living_area: number('area'), price: number('price') }
const drawing = ref(false)
function takeShapes(shapes: DrawnShape[], drawn: string) {
  drawing.value = false
  set({ shapes, drawn })
}

/** The records behind a figure of the year so far, or of a band. */
type Figure = Omit<Docs['BehindAsk'], 'view' | 'place' | 'whole'> &
  Partial<Pick<Docs['BehindAsk'], 'view' | 'place' | 'whole'>>
function openFigure(ask: Figure, title: string, where: string[] = []) {
  asked.value = {
    ask: {
      view: { ...view.value, where: [...view.value.where!, ...where] },
      place: view.value.together ? '' : (view.value.places![0] ?? ''),
      whole: false,
      ...ask,
    },
    title,
  }
}
/** The measure that is pulled up out of the glance: in the address, so that back leads back. */
const up = computed(() => String(route.query.up ?? ''))
const pull = (measure: string) => void router.push({ query: { ...route.query, up: measure || undefined } })
const asked = ref<{ ask: Docs['BehindAsk']; title: string } | null>(null)
/** The records behind a point; of years laid over each other, those of the line's own year. */
function open(period: number, line: number) {
  const l = told.value?.lines[line]
  const p = told.value?.periods[period]
  if (!l || !p || l.measure === 'series') return
  const ofYear = (day: string) => `${l.name}${day.slice(4)}`.replace('-02-29', '-02-28')
  const [start, end] = view.value.overlay ? [ofYear(p.start), ofYear(p.end)] : [p.start, p.end]
  asked.value = {
    ask: {
      view: { ...view.value, where: [...view.value.where!, ...l.where!] },
      measure: l.measure,
      place: l.place!,
      whole: l.whole!,
      start,
      end,
    },
    title: view.value.overlay
      ? periodWords(`${l.name}-${p.period}`)
      : [periodWords(p.period), l.name].filter(Boolean).join(', '),
  }
}
const chart = ref<{ svg(): string }>()
const giveSvg = () =>
  give(new Blob([chart.value?.svg() ?? ''], { type: 'image/svg+xml' }), `${fileNamed()}.svg`)
/** What the way that is open can be taken away as. */
type Form = 'csv' | 'xlsx'
const files = computed(() => {
  const asked = (form: Form) => ({ params: { path: { form } }, parseAs: 'blob' as const })
  if (way.value === 'sofar')
    return {
      name: fileNamed('the year so far'),
      ask: (form: Form) => api.POST('/api/market/year-so-far.{form}', { body: view.value, ...asked(form) }),
    }
  if (way.value === 'bands')
    return {
      name: fileNamed('by size and price'),
      ask: (form: Form) =>
        api.POST('/api/market/bands.{form}', { body: { view: view.value, ...home }, ...asked(form) }),
    }
  if (way.value !== 'chart') return null
  return {
    name: fileNamed(),
    ask: (form: Form) => api.POST('/api/market/view.{form}', { body: view.value, ...asked(form) }),
  }
})
const notGiven = ref('')
async function takeAway(form: Form) {
  if (!files.value) return
  notGiven.value = ''
  try {
    give((await got(files.value.ask(form))) as Blob, `${files.value.name}.${form}`)
  } catch (error) {
    notGiven.value = (error as Told).message
  }
}
const through = computed(() => told.value?.through ?? '')
</script>

<template>
  <div class="market">
    <h1 class="sr">Market</h1>
    <div class="top">
      <ViewSentence :tools="tools" @draw="drawing = true" />
      <ViewOptions :tools="tools" />
      <p v-if="answer.isError.value" class="lamp mt-2" role="alert">{{ answer.error.value?.message }}</p>
      <p v-if="told && !answer.isError.value" class="says" aria-live="polite">{{ told.sentence }}</p>
      <p v-if="(told?.figures.length ?? 0) > 1 && !answer.isError.value" class="quiet small apart">
        {{ localHead(told!.lines[0]!.alone) }}:
        <template v-for="(f, i) in told!.figures" :key="f.over">
          <template v-if="i">; </template><b>{{ shownAs(f.value.value, told!.lines[0]!.unit) }}</b> over
          {{ f.over }}<template v-if="i"> ({{ f.value.n }} homes)</template></template
        >.
      </p>
      <p v-for="n in told?.notes ?? []" :key="n" class="quiet small">{{ n }}</p>
      <div class="bar">
        <Ways v-model="way" :ways="WAYS" label="Ways to look at the market" />
        <span v-if="files" class="out small">
          Take away as
          <LinkButton v-for="form in ['csv', 'xlsx'] as const" :key="form" @click="takeAway(form)">
            {{ form.toUpperCase() }}
          </LinkButton>
          <template v-if="way === 'chart'">
            <LinkButton @click="pngOf(chart?.svg() ?? '', `${fileNamed()}.png`)"> PNG </LinkButton>
            <LinkButton @click="giveSvg">SVG</LinkButton>
          </template>
        </span>
      </div>
      <p v-if="notGiven" class="lamp" role="alert">{{ notGiven }}</p>
    </div>
    <Glance
      v-if="way === 'glance'"
      :view="view"
      :up="up"
      class="below"
      @open="(ask, title) => openFigure(ask, title)"
      @pull="pull"
    />
    <SoFar v-else-if="way === 'sofar'" :view="view" class="below" @open="openFigure" />
    <Bands v-else-if="way === 'bands'" :view="view" :home="home" class="below" @open="openFigure" />
    <Changed v-else-if="way === 'changed' && through" :view="view" :through="through" class="below" />
    <Bulletins v-else-if="way === 'bulletins'" :view="view" class="below" />
    <div v-else-if="told" class="both below" :class="{ many: told.lines.length > 3 }">
      <div class="sheet chart">
        <MarketChart ref="chart" :told="told" :at="at" @at="at = $event" @open="open" />
      </div>
      <div class="right">
        <div class="sheet figures"><ViewFigures :told="told" :at="at" @at="at = $event" @open="open" /></div>
        <SavedViews :tools="tools" />
      </div>
    </div>
    <p v-else-if="!answer.isError.value" class="quiet">Counting …</p>
    <Behind v-if="asked" :ask="asked.ask" :title="asked.title" @close="asked = null" />
    <DrawPlace v-if="drawing" @take="takeShapes" @close="drawing = false" />
  </div>
</template>

<style scoped>
.market {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 12px;
  padding: 18px 24px;
}
.sr {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.bar {
  display: flex;
  align-items: center;
  margin-top: 10px;
}
.out {
  display: flex;
  gap: 12px;
  margin-left: auto;
}
.says {
  font-size: var(--text-l);
  margin-top: 8px;
}
.both {
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 18px;
}
.many {
  grid-template-columns: minmax(0, 1fr) 480px;
}
.chart {
  padding: 12px 8px 4px;
  min-height: 0;
}
.right {
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 10px;
}
.figures {
  overflow: auto;
  min-height: 0;
}
/* a small screen, or a large one read at 200 %: one below the other */
@media (max-width: 900px) {
  .market {
    height: auto;
    grid-template-columns: minmax(0, 1fr);
  }
  .bar {
    flex-wrap: wrap;
    gap: 8px;
  }
  .both,
  .many {
    grid-template-columns: minmax(0, 1fr);
  }
  .chart {
    height: 340px;
  }
}
</style>
