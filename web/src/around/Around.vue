<script setup lang="ts">
import { useHomeKinds } from '@/shared/useFields'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { computed, defineAsyncComponent, ref } from 'vue'
import { DASH, money, number, perSqft, day } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { KIND_WORDS } from '@/shared/marks'
import type { DrawnShape, Tool } from '@/shared/mapShapes'
import MapTools from '@/shared/MapTools.vue'
import { useAround } from './useAround'

const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const { home, around, areas, fields, held, set, days, setDays, band, setBand, begin, failed } = useAround()
const found = computed(() => around.data.value)
const lit = ref<string | null>(null)
const homeKinds = useHomeKinds()
const FIGURES: [string, string, (v: number) => string][] = [
  ['price', 'Price', money],
  ['price_per_sqft', 'Per sq ft', perSqft],
  ['living_area', 'Sq ft', (v) => number(v)],
  ['days_on_market', 'Days', (v) => number(v)],
]
const kinds = computed(() => Object.entries(found.value?.counts ?? {}).filter(([, n]) => n > 0))
const figure = (kind: string, what: string) =>
  found.value?.figures.find((f) => f.kind === kind && f.what === what)
const more = ref<string[]>([])
const bandsOf = computed<[string, string][]>(() => [
  ['living_area', 'Sq ft'],
  ['list_price', 'List price'],
  ...(held.value.criteria ?? [])
    .map((c) => c.field)
    .concat(more.value)
    .filter((name, i, all) => !['living_area', 'list_price'].includes(name) && all.indexOf(name) === i)
    .flatMap((name): [string, string][] => {
      const f = numeric.value.find((x) => x.name === name)
      return f ? [[name, f.short || f.label]] : []
    }),
])
const numeric = computed(() =>
  (fields.data.value ?? []).filter((f) => f.searched && ['number', 'money', 'year'].includes(f.kind)),
)
/** An end of a band as figures are read elsewhere: 1,450, and a year as 1985. */
const shown = (name: string, value: unknown) =>
  typeof value !== 'number'
    ? ''
    : numeric.value.find((f) => f.name === name)?.kind === 'year'
      ? String(value)
      : number(value)
const offered = computed(() => numeric.value.filter((f) => !bandsOf.value.some(([name]) => name === f.name)))
const addField = (name: string) => name && more.value.push(name)
const tool = ref<Tool | null>(null)
function draw(shape: DrawnShape) {
  set({ shapes: [...(held.value.shapes ?? []), shape] })
  tool.value = null
}
const moveShape = (index: number, shape: DrawnShape) =>
  set({ shapes: (held.value.shapes ?? []).map((s, i) => (i === index ? shape : s)) })
</script>

<template>
  <div class="page">
    <header>
      <div class="title">
        <h1>{{ home ? (found?.title ?? '…') : 'Homes by search' }}</h1>
        <p v-if="found" class="sentence">{{ found.sentence }}</p>
        <p v-if="found?.loosened.length" class="quiet small">
          Loosened to find enough: {{ found.loosened.join(', ') }}.
        </p>
      </div>
      <ActButton v-if="home" strong @click="begin">Make it a workup</ActButton>
    </header>
    <form class="controls" aria-label="The search" @submit.prevent>
      <label v-if="home">
        Within
        <ChoiceField
          :model-value="held.radius_miles ?? ''"
          @chosen="set({ radius_miles: Number($event) || null })"
        >
          <option v-for="m in [0.25, 0.5, 1, 2, 5]" :key="m" :value="m">{{ m }} mi</option>
          <option
            v-if="held.radius_miles && ![0.25, 0.5, 1, 2, 5].includes(held.radius_miles)"
            :value="held.radius_miles"
          >
            {{ held.radius_miles }} mi
          </option>
          <option value="">any distance</option>
        </ChoiceField>
      </label>
      <label>
        In
        <TypedInput
          :value="held.areas?.join(', ')"
          list="named-areas"
          placeholder="any area; * for any letters"
          class="wide"
          @typed="
            set({
              areas: $event
                .split(',')
                .map((a) => a.trim())
                .filter(Boolean),
            })
          "
        />
        <datalist id="named-areas">
          <option v-for="a in areas.data.value ?? []" :key="a.area_key" :value="a.name" />
        </datalist>
      </label>
      <label>
        Kind
        <ChoiceField
          :model-value="held.home_kinds?.length === 1 ? held.home_kinds[0] : ''"
          @chosen="
            set({
              home_kinds: $event ? [$event] : [],
            })
          "
        >
          <option v-for="(words, kind) in homeKinds.data.value ?? {}" :key="kind" :value="kind">
            {{ words }}
          </option>
          <option value="">any kind</option>
        </ChoiceField>
      </label>
      <label>
        Sold within
        <ChoiceField :model-value="days ?? ''" @chosen="setDays(Number($event))">
          <option v-for="d in [90, 120, 180, 365, 730]" :key="d" :value="d">{{ d }} days</option>
        </ChoiceField>
      </label>
      <label>
        And
        <ChoiceField model-value="" aria-label="One more field" @chosen="addField($event)">
          <option value="">one more field</option>
          <option v-for="f in offered" :key="f.name" :value="f.name">{{ f.label }}</option>
        </ChoiceField>
      </label>
      <label v-for="[field, words] in bandsOf" :key="field">
        {{ words }}
        <NumberField
          :value="shown(field, band(field)?.low)"
          placeholder="from"
          :aria-label="`${words} from`"
          @number="setBand(field, 'low', $event)"
        />
        <NumberField
          :value="shown(field, band(field)?.high)"
          placeholder="to"
          :aria-label="`${words} to`"
          @number="setBand(field, 'high', $event)"
        />
      </label>
    </form>
    <p v-if="around.isError.value" class="lamp" role="alert">{{ around.error.value?.message }}</p>
    <p v-if="failed" class="lamp" role="alert">{{ failed }}</p>
    <div v-if="found" class="halves" :aria-busy="around.isFetching.value">
      <div class="map">
        <HomeMap
          :subject="found.subject"
          :candidates="found.candidates"
          :lit="lit"
          :radius="home ? (held.radius_miles ?? null) : null"
          :zoom="home ? undefined : 13"
          :unnamed="!home"
          :shapes="held.shapes"
          :fences="held.fences"
          :tool="tool"
          @drawn="draw"
          @fence="(set({ fences: [...(held.fences ?? []), $event] }), (tool = null))"
          @moved="moveShape"
          @radius="(miles, done) => done && home && set({ radius_miles: miles })"
          @lit="lit = $event"
        />
        <MapTools v-model="tool" :no-fences="!home" />
        <LinkButton
          v-if="held.shapes?.length || held.fences?.length"
          class="small away"
          @click="set({ shapes: [], fences: [] })"
        >
          take what is drawn away
        </LinkButton>
      </div>
      <div class="told">
        <PlainTable v-if="kinds.length" class="small" aria-label="Statistics of what was found">
          <thead>
            <tr>
              <th>Found</th>
              <th />
              <th class="num">Low</th>
              <th class="num">Mean</th>
              <th class="num">Median</th>
              <th class="num">High</th>
            </tr>
          </thead>
          <tbody v-for="[kind, n] in kinds" :key="kind">
            <tr v-for="([what, words, show], i) in FIGURES" :key="what" :class="{ first: !i }">
              <td v-if="!i" :rowspan="FIGURES.length" class="kind">
                <span class="marked"
                  ><Mark :kind="kind" /> <b>{{ number(n) }}</b>
                  {{ KIND_WORDS[kind] ?? kind.replace('_', ' ') }}</span
                >
              </td>
              <td class="quiet">{{ words }}</td>
              <td v-for="at in ['low', 'mean', 'median', 'high'] as const" :key="at" class="num">
                <component :is="what === 'price' && at === 'median' ? 'b' : 'span'">{{
                  figure(kind, what) ? show(figure(kind, what)![at]) : DASH
                }}</component>
              </td>
            </tr>
          </tbody>
        </PlainTable>
        <p v-else class="quiet pa-4">This search finds no home. Give it more time, or a wider place.</p>
        <PlainTable v-if="found.candidates.length" class="small homes" aria-label="Homes that were found">
          <thead>
            <tr>
              <th>Home</th>
              <th class="num">Price</th>
              <th class="num">$/sq ft</th>
              <th class="num">Sq ft</th>
              <th class="num">Built</th>
              <th v-if="home" class="num">Miles</th>
              <th class="num">Date</th>
              <th class="num">Days</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="c in found.candidates"
              :key="c.listing_id"
              :class="{ lit: lit === c.listing_id }"
              @mouseenter="lit = c.listing_id"
              @mouseleave="lit = null"
            >
              <td class="kind">
                <span class="marked"><Mark :kind="c.kind" /> {{ c.address || c.listing_id }}</span>
              </td>
              <td class="num">
                <b>{{ money(c.price) }}</b>
              </td>
              <td class="num">{{ perSqft(c.price_per_sqft) }}</td>
              <td class="num">{{ c.facts.living_area ? number(c.facts.living_area as number) : DASH }}</td>
              <td class="num">{{ c.facts.year_built ?? DASH }}</td>
              <td v-if="home" class="num">{{ c.distance_miles.toFixed(2) }}</td>
              <td class="num">{{ day(c.date) }}</td>
              <td class="num">{{ c.days_on_market ?? '' }}</td>
            </tr>
          </tbody>
        </PlainTable>
        <p class="quiet small mt-2">
          {{ number(found.shown) }} homes listed; as of {{ day(found.effective_date) }}. Nothing of this is
          kept{{ home ? ' until you make it a workup' : '' }}.
        </p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  height: 100%;
  background: rgb(var(--v-theme-surface));
}
header {
  display: flex;
  align-items: flex-start;
  gap: 24px;
  padding: 18px 24px 8px;
}
.title {
  flex: 1;
}
.sentence {
  font-size: var(--text-l);
  margin-top: 2px;
}
.controls {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  padding: 4px 24px 12px;
  border-bottom: var(--line);
}
.controls label {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: var(--text-s);
  color: rgb(var(--v-theme-quiet));
}
.controls :deep(input),
.controls select {
  height: 28px;
  padding: 0 7px;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  color: rgb(var(--v-theme-slate));
}
.controls :deep(input) {
  width: 78px;
}
.controls .wide {
  width: 190px;
}
.halves {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
}
.map {
  position: relative;
}
.away {
  position: absolute;
  left: 50%;
  top: 10px;
  transform: translateX(-50%);
  padding: 2px 10px;
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
}
.told {
  overflow: auto;
  padding: 6px 18px 24px;
  border-left: var(--line);
}
.kind {
  white-space: nowrap;
  vertical-align: top;
}
.marked {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
.first td {
  border-top: var(--line);
}
tbody td {
  padding-top: 3px !important;
  padding-bottom: 3px !important;
}
.homes {
  margin-top: 18px;
}
.lit td {
  background: rgba(var(--v-theme-lamp), 0.14);
}
.lamp {
  margin: 10px 24px;
}
</style>
