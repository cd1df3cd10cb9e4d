<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, got, Told } from '@/shared/api/client'
import SoFar from './SoFar.vue'
import { shownAs, useView, type View } from './useView'

const MarketChart = defineAsyncComponent(() => import('./MarketChart.vue'))
const { view, answer, lists, set, label, places } = useView()
const at = ref<number | null>(null)
const soFar = ref(false)
const told = computed(() => answer.data.value)
const backwards = computed(() => (told.value?.periods ?? []).map((p, i) => ({ ...p, i })).reverse())
const chosen = (event: Event) => (event.target as HTMLSelectElement).value

const second = computed(() => view.value.measures![1] ?? '')
function setMeasure(i: number, name: string) {
  const next = [...view.value.measures!]
  if (i === 1 && !name) next.splice(1, 1)
  else next[i] = name
  set({ measures: [...new Set(next)] })
}
function setPlace(i: number, name: string) {
  const next = [...view.value.places!]
  if (name) next[i] = name
  else next.splice(i, 1)
  set({ places: [...new Set(next)], overlay: next.length > 1 ? false : view.value.overlay })
}
const compared = computed(() => Math.min(6, (view.value.places?.length ?? 0) + 1))

const client = useQueryClient()
const saved = useQuery({ queryKey: ['views'], queryFn: () => got(api.GET('/api/views')) })
const name = ref('')
const fault = ref('')
async function keep(pinned: boolean, title = name.value) {
  fault.value = ''
  const own =
    title.trim() ||
    `${label(view.value.measures![0]!)}${view.value.places?.[0] ? `, ${view.value.places[0]}` : ''}`
  try {
    await got(api.POST('/api/views', { body: { name: own, pinned, view: view.value } }))
    name.value = ''
    await client.invalidateQueries({ queryKey: ['views'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
async function drop(id: number) {
  await got(api.DELETE('/api/views/{view_id}', { params: { path: { view_id: id } } }))
  await client.invalidateQueries({ queryKey: ['views'] })
}
const take = (v: View) => (view.value = { ...v })

const drawing = ref<{ svg(): string }>()
function give(data: string, type: string, file: string) {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(new Blob([data], { type }))
  a.download = file
  a.click()
  URL.revokeObjectURL(a.href)
}
async function giveCsv() {
  const answer = await fetch('/api/market/view.csv', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(view.value),
  })
  give(await answer.text(), 'text/csv', 'market.csv')
}
</script>

<template>
  <div class="market">
    <h1 class="sr">Market</h1>
    <div class="top">
      <p class="sentence">
        <select :value="view.measures![0]" aria-label="Measure" @change="setMeasure(0, chosen($event))">
          <option v-for="m in lists.measures.data.value ?? []" :key="m.name" :value="m.name">
            {{ m.label }}
          </option>
        </select>
        and
        <select :value="second" aria-label="Second measure" @change="setMeasure(1, chosen($event))">
          <option value="">nothing else</option>
          <option v-for="m in lists.measures.data.value ?? []" :key="m.name" :value="m.name">
            {{ m.label }}
          </option>
        </select>
        by
        <select :value="view.by" aria-label="Period" @change="set({ by: chosen($event) as 'month' })">
          <option>month</option>
          <option>quarter</option>
          <option>year</option>
        </select>
        over the last
        <select :value="view.years" aria-label="Years" @change="set({ years: Number(chosen($event)) })">
          <option v-for="n in [1, 2, 3, 5, 10]" :key="n" :value="n">
            {{ n }} {{ n === 1 ? 'year' : 'years' }}
          </option>
        </select>
        for
        <select
          :value="view.home_kind"
          aria-label="Kind of home"
          @change="set({ home_kind: chosen($event) })"
        >
          <option value="">homes of any kind</option>
          <option v-for="(words, kind) in lists.kinds.data.value ?? {}" :key="kind" :value="kind">
            {{ words }}
          </option>
        </select>
        in
        <template v-for="i in compared" :key="i">
          <template v-if="i > 1">, </template>
          <select
            :value="view.places![i - 1] ?? ''"
            :aria-label="i === 1 ? 'Place' : `Place ${i}`"
            @change="setPlace(i - 1, chosen($event))"
          >
            <option value="">{{ i === 1 ? 'all of the records' : '+ compare' }}</option>
            <option v-for="p in places" :key="p.kind + p.name" :value="p.name">{{ p.name }}</option>
          </select> </template
        >.
      </p>
      <p class="options small">
        <label>
          smoothed over
          <select
            :value="view.smooth"
            aria-label="Smoothing"
            @change="set({ smooth: Number(chosen($event)) as 1 })"
          >
            <option :value="1">nothing</option>
            <option :value="3">3 periods</option>
            <option :value="12">12 periods</option>
          </select>
        </label>
        <label :class="{ quiet: compared > 2 }">
          <input
            type="checkbox"
            :checked="view.overlay"
            :disabled="compared > 2 || view.by === 'year'"
            @change="set({ overlay: ($event.target as HTMLInputElement).checked })"
          />
          years over each other
        </label>
        <label>
          over it
          <select :value="view.series" aria-label="Outside series" @change="set({ series: chosen($event) })">
            <option value="">no outside series</option>
            <option v-for="s in lists.series.data.value ?? []" :key="s" :value="s">{{ s }}</option>
          </select>
        </label>
        <button type="button" class="link" :aria-pressed="soFar" @click="soFar = !soFar">
          {{ soFar ? 'back to the chart' : 'the year so far' }}
        </button>
        <span class="out">
          <button type="button" class="link" @click="giveCsv">CSV</button>
          <button
            type="button"
            class="link"
            @click="give(drawing?.svg() ?? '', 'image/svg+xml', 'market.svg')"
          >
            SVG
          </button>
        </span>
      </p>
      <p v-if="answer.isError.value" class="lamp" role="alert">{{ answer.error.value?.message }}</p>
      <p v-else-if="told" class="says" aria-live="polite">{{ told.sentence }}</p>
    </div>
    <SoFar v-if="soFar" :view="view" class="below" />
    <div v-else-if="told" class="both below">
      <div class="sheet chart"><MarketChart ref="drawing" :told="told" :at="at" @at="at = $event" /></div>
      <div class="right">
        <div class="sheet figures">
          <table class="plain" aria-label="Market figures by period">
            <thead>
              <tr>
                <th>Period</th>
                <th v-for="l in told.lines" :key="l.name" class="num wrap">{{ l.name || l.label }}</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="p in backwards"
                :key="p.period"
                :class="{ at: at === p.i }"
                @mouseenter="at = p.i"
                @mouseleave="at = null"
              >
                <td class="when">
                  {{ p.period }}<span v-if="!p.finished" class="quiet small"> so far</span>
                </td>
                <td v-for="l in told.lines" :key="l.name" class="num">
                  {{ shownAs(l.points[p.i]?.value, l.unit) }}
                  <span
                    v-if="
                      l.unit && l.measure !== 'series' && l.points[p.i]?.value != null && l.points[p.i]!.n < 5
                    "
                    class="quiet small"
                    :title="`from only ${l.points[p.i]!.n}`"
                    >({{ l.points[p.i]!.n }})</span
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <div class="views">
          <p v-for="v in saved.data.value ?? []" :key="v.view_id" class="view">
            <button type="button" class="link" @click="take(v.view as View)">{{ v.name }}</button>
            <span v-if="v.pinned" class="quiet small">on the desk</span>
            <button
              type="button"
              class="link small"
              :aria-label="`Delete ${v.name}`"
              @click="drop(v.view_id)"
            >
              ×
            </button>
          </p>
          <form class="save" @submit.prevent="keep(false)">
            <input
              v-model="name"
              aria-label="Name of the view"
              placeholder="Name of this view"
              maxlength="80"
            />
            <button type="submit" class="do">Save</button>
            <button type="button" class="do" @click="keep(true)">Pin</button>
          </form>
          <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
        </div>
      </div>
    </div>
    <p v-else-if="!answer.isError.value" class="quiet">Counting …</p>
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
.sentence {
  font-size: 17px;
  line-height: 1.75;
}
.sentence select {
  font-weight: 600;
  border-bottom: 2px solid rgb(var(--v-theme-rain));
  max-width: 240px;
}
select {
  field-sizing: content;
  cursor: pointer;
  color: inherit;
  background: rgb(var(--v-theme-mist));
  padding: 0 2px;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin: 4px 0 8px;
}
.options select {
  border-bottom: 1px solid rgb(var(--v-theme-rain));
}
.out {
  display: flex;
  gap: 12px;
  margin-left: auto;
}
.says {
  font-size: 15px;
}
.both {
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 18px;
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
.figures thead th {
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
}
.wrap {
  white-space: normal;
  max-width: 110px;
}
.when {
  white-space: nowrap;
}
.at td {
  background: rgba(var(--v-theme-lamp), 0.16);
}
.view {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.view > :last-child {
  margin-left: auto;
}
.save {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 6px;
  margin-top: 6px;
}
.save input {
  padding: 4px 8px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: inherit;
}
</style>
