<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, got } from '@/shared/api/client'
import { number } from '@/shared/format'
import { isTyping, useKeys } from '@/shared/keys'
import type { DrawnFence, DrawnShape, Tool } from '@/shared/mapShapes'
import Mark from '@/shared/Mark.vue'
import { KIND_WORDS } from '@/shared/marks'
import { useWorkup } from '../useWorkup'
import AddHome from './AddHome.vue'
import MapCard from './MapCard.vue'
import { provideChoosing } from './useChoosing'
import MapTools from '@/shared/MapTools.vue'
import InFigures from './InFigures.vue'
import CandidateTable from './CandidateTable.vue'
import ColumnsMenu from './ColumnsMenu.vue'
import RecordPanel from './RecordPanel.vue'
import SavedSearches from './SavedSearches.vue'
import SearchSentence from './SearchSentence.vue'
import SideBySide from './SideBySide.vue'
import TwoHomes from './TwoHomes.vue'
import SetAside from './SetAside.vue'
import SplitPane from '@/shared/SplitPane.vue'
import Ways from '@/shared/Ways.vue'
import { useSearch, type Search } from './useSearch'
import { useSelection } from './useSelection'

const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const { id, open, found, state, send, choices, choiceOf, decide, lit, kept } = useWorkup()
const search = useSearch()
const opened = ref(false)
const { shown, elsewhere, here, only, current, move, sorting } = useSelection()
// a home that another place of the workup names, such as an end of the rail, opens here
const route = useRoute()
const router = useRouter()
watch(
  [() => route.query.home, shown],
  ([key, rows]) => {
    if (typeof key !== 'string') return
    if (!rows.some((c) => c.listing_id === key)) {
      only.value = false // it may stand among those not kept
      return
    }
    openHome(key)
    void router.replace({ query: {} })
  },
  { immediate: true, flush: 'post' },
)

const counts = computed(() => search.live.value?.counts ?? found.data.value?.counts ?? {})
/** How many the search finds, where it finds more than are listed. */
const beyond = computed(() => {
  const { counts: n, candidates: listed } = found.data.value ?? { counts: {}, candidates: [] }
  const all = Object.values(n).reduce((sum, x) => sum + x, 0)
  return !only.value && all > listed.length ? all : 0
})
const unknown = computed(() => Object.entries(search.live.value?.unknown ?? found.data.value?.unknown ?? {}))
const within = computed(() => Object.entries(found.data.value?.sold_within ?? {}))
/** The most alike sales that nothing has been decided on: help never touches a decision. */
const suggested = computed(() =>
  (found.data.value?.suggested ?? []).filter((k) => choiceOf(k) === 'undecided'),
)
const fault = computed(() => found.data.value?.fault)
const proposals = useQuery({
  queryKey: ['workup', id, 'proposals', computed(() => open.data.value?.revision)],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/proposals', { params: { path: { workup_id: id.value } } })),
})
const helps = computed(() => proposals.data.value?.helps)
const tool = ref<Tool | null>(null)
const mapShare = ref(27)
const crossings = computed(() => search.live.value?.crossings ?? found.data.value?.crossings)
const limits = () => search.copy()
function addShape(shape: DrawnShape) {
  tool.value = null
  const next = limits()
  void search.take({ ...next, shapes: [...(next.shapes ?? []), shape] })
}
function addFence(fence: DrawnFence) {
  tool.value = null
  const next = limits()
  void search.take({ ...next, fences: [...(next.fences ?? []), fence] })
}
function moveShape(index: number, shape: DrawnShape) {
  const next = limits()
  void search.take({ ...next, shapes: (next.shapes ?? []).map((s, i) => (i === index ? shape : s)) })
}
const { asking, aside } = provideChoosing()
function openHome(key: string) {
  here.value = key
  opened.value = true
}
function added(key: string) {
  only.value = false
  here.value = key
}
const WAYS = { around: 'Around', beside: 'Side by side', figures: 'In figures' }
const way = ref<keyof typeof WAYS>('around')
const beside = computed(() => way.value === 'beside')
const around = computed(() => way.value === 'around')
const two = ref(false)
/** Move on, past homes that stand in no column. */
function step(by: number) {
  for (let n = 0; n < shown.value.length; n += 1) {
    move(by)
    if (!beside.value || (current.value && choiceOf(current.value.listing_id) !== 'set_aside')) return
  }
}
function rate(grade: number) {
  const key = current.value?.listing_id
  const now = key ? state.value?.conditions?.[key] : undefined
  if (key) void send({ change: 'rate_condition', listing_id: key, grade: now === grade ? null : grade })
}

let byKey = false // who works by keys goes on to the next home, who presses stays
function asideByKey() {
  if (!current.value) return
  byKey = true
  aside(current.value)
}
watch(asking, (now) => now || (byKey = false))
function setAside(reason: string) {
  const key = asking.value?.listing_id
  asking.value = null
  if (!key) return
  void decide([key], 'set_aside', reason)
  if (byKey) move(1)
}
function keepOne() {
  const key = current.value?.listing_id
  if (!key) return
  void decide([key], choiceOf(key) === 'kept' ? 'undecided' : 'kept')
  move(1)
}
const KEYS = [
  ['↑ ↓', 'the home before, the next'],
  ['Enter', 'open it'],
  ['K', 'keep it, or take that back'],
  ['X', 'set it aside, with a reason'],
  ['U', 'leave it undecided'],
  ['P', 'its pictures beside your home’s'],
  ['1 … 6', 'its condition: new … damaged'],
  ['S', 'side by side, and back'],
  ['F', 'in figures, and back'],
  ['L', 'what the marks mean'],
  ['Z', 'undo'],
]
function key(event: KeyboardEvent) {
  const onButton = (event.target as HTMLElement).tagName === 'BUTTON' && event.key === 'Enter'
  if (isTyping(event) || onButton || event.ctrlKey || event.metaKey || event.altKey || asking.value) return
  const pressed = event.key.toLowerCase()
  if (two.value) return
  if (pressed === 'arrowdown' || (beside.value && pressed === 'arrowright')) step(1)
  else if (pressed === 'arrowup' || (beside.value && pressed === 'arrowleft')) step(-1)
  else if (pressed === 's') way.value = beside.value ? 'around' : 'beside'
  else if (pressed === 'f') way.value = way.value === 'figures' ? 'around' : 'figures'
  else if (pressed === 'p' && current.value) two.value = true
  else if (/^[1-6]$/.test(pressed) && current.value) rate(7 - Number(pressed))
  else if (pressed === 'escape' && tool.value) tool.value = null
  else if (pressed === 'k') keepOne()
  else if (pressed === 'enter' && current.value) opened.value = true
  else if (pressed === 'x' && current.value) asideByKey()
  else if (pressed === 'u' && current.value) void decide([current.value.listing_id], 'undecided')
  else return
  event.preventDefault()
}
useKeys(key)
</script>

<template>
  <div class="comps">
    <div class="head">
      <SearchSentence :search="search" />
      <p class="counts" aria-live="polite">
        <span
          v-for="(words, kind) in KIND_WORDS"
          v-show="kind !== 'deed_sale' || counts[kind]"
          :key="kind"
          class="count"
        >
          <Mark :kind="String(kind)" /> <b>{{ number(counts[kind] ?? 0) }}</b> {{ words }}
        </span>
        <span v-if="unknown.length" class="quiet small">
          of these, unknown:
          <template v-for="[field, n] in unknown" :key="field"
            >{{ search.label(field).toLowerCase() }} {{ n }}
          </template>
        </span>
        <span v-if="helps" class="help small">
          {{ (counts.sold ?? 0) < 6 ? 'Few sold' : 'Many sold' }}:
          <LinkButton @click="search.take(helps.search as Search)"> {{ helps.words }}</LinkButton>:
          {{ helps.sold }}
        </span>
        <span class="quiet small within">
          sold within
          <template v-for="[days, n] in within" :key="days">
            <LinkButton :title="`Look back ${days} days`" @click="search.setWindow('sold', Number(days))">
              {{ days }} d: {{ n }}
            </LinkButton>
            {{ ' ' }}
          </template>
        </span>
      </p>
      <div class="act">
        <ActButton
          v-if="suggested.length"
          title="The most alike sales that you have not decided on"
          @click="decide(suggested, 'kept')"
        >
          Keep the {{ suggested.length }} most alike
        </ActButton>
        <AddHome @added="added" />
        <Ways v-model="way" :ways="WAYS" label="Ways to look" />
        <ActButton :active="only" plain @click="only = !only">Only kept ({{ kept }})</ActButton>
        <ColumnsMenu v-if="around" />
        <SavedSearches @take="search.take($event)" />
        <MenuBox>
          <template #press="{ props: activator }">
            <ActButton v-bind="activator" class="keys" plain>Keys</ActButton>
          </template>
          <ul class="sheet hints" aria-label="Keys of this room">
            <li v-for="[pressed, words] in KEYS" :key="pressed">
              <kbd>{{ pressed }}</kbd> {{ words }}
            </li>
          </ul>
        </MenuBox>
      </div>
    </div>
    <SideBySide v-if="beside" :rows="shown" :here="here" @select="here = $event" @open="openHome" />
    <InFigures v-if="way === 'figures'" :rows="shown" @open="openHome" />
    <SplitPane v-show="around" v-model="mapShare" left="map" right="table" :usual="27">
      <template #left>
        <HomeMap
          v-if="open.data.value"
          :subject="open.data.value.subject"
          :candidates="shown"
          :choices="choices"
          :lit="lit"
          :radius="search.draft.value?.radius_miles ?? null"
          :shapes="search.draft.value?.shapes"
          :fences="search.draft.value?.fences"
          :crossings="crossings"
          :tool="tool"
          @drawn="addShape"
          @fence="addFence"
          @moved="moveShape"
          @lit="lit = $event"
          @open="openHome"
          @radius="search.dragRadius"
        >
          <template #card="{ homes, close }">
            <MapCard :homes="homes" @open="(close(), openHome($event))" />
          </template>
        </HomeMap>
        <MapTools v-model="tool" />
      </template>
      <template #right>
        <CandidateTable
          :rows="shown"
          :of="beyond"
          :here="here"
          :sorting="sorting"
          :loading="found.isFetching.value"
          :elsewhere="elsewhere"
          @sort="sorting = $event"
          @open="openHome"
        >
          <template #empty>
            <p v-if="fault" class="lamp mb-2" role="alert">{{ fault.message }}</p>
            <p v-else class="mb-2">This search finds no home.</p>
            <p v-for="w in search.helps.value" :key="w.words" class="mb-1">
              <LinkButton @click="search.take(w.search)">{{ w.words }}</LinkButton> would find {{ w.total }}.
            </p>
          </template>
        </CandidateTable>
        <RecordPanel
          v-if="opened && current && around"
          :row="current"
          @close="opened = false"
          @next="move($event)"
        />
      </template>
    </SplitPane>
    <TwoHomes
      v-if="two && current"
      :right="current"
      :resting="!!asking"
      @close="two = false"
      @next="step"
      @keep="keepOne"
      @aside="asideByKey"
      @rate="rate"
    />
    <RecordPanel
      v-if="opened && current && !around"
      class="over"
      :row="current"
      @close="opened = false"
      @next="step($event)"
    />
    <SetAside
      v-if="asking"
      :name="asking.address || asking.listing_id"
      @done="setAside"
      @close="asking = null"
    />
  </div>
</template>

<style scoped>
.comps {
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}
.head {
  padding: 12px 18px 8px;
  border-bottom: var(--line);
}
.counts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin-top: 6px;
}
.count {
  display: inline-flex;
  align-items: center;
  gap: 3px;
}
.help {
  padding: 0 8px;
  border-left: 3px solid rgb(var(--v-theme-lamp));
}
.within {
  margin-left: auto;
}
.act {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
}
.over {
  position: absolute;
  inset: 0;
}
.keys {
  margin-left: auto;
}
.hints {
  list-style: none;
  padding: 10px 16px;
}
.hints kbd {
  display: inline-block;
  min-width: 52px;
  font: inherit;
  font-weight: 600;
}
</style>
