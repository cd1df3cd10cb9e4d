<script setup lang="ts">
import { useHomeKinds } from '@/shared/useFields'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { computed, defineAsyncComponent, ref } from 'vue'
import { day, number } from '@/shared/format'
import type { DrawnShape, Tool } from '@/shared/mapShapes'
import MapTools from '@/shared/MapTools.vue'
import FoundFigures from './FoundFigures.vue'
import FoundHomes from './FoundHomes.vue'
import { useAround } from './useAround'

const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const { home, around, areas, fields, held, set, days, setDays, band, setBand, begin, failed } = useAround()
const found = computed(() => around.data.value)
const lit = ref<string | null>(null)
const homeKinds = useHomeKinds()
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
      <div class="told" tabindex="0" role="region" aria-label="What was found">
        <FoundFigures v-if="found.candidates.length" :found="found" />
        <p v-else class="quiet pa-4">This search finds no home. Give it more time, or a wider place.</p>
        <FoundHomes v-if="found.candidates.length" v-model="lit" :homes="found.candidates" :miles="!!home" />
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
.lamp {
  margin: 10px 24px;
}
</style>
