<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { DrawnFence, DrawnShape, Tool } from '@/shared/mapShapes'
import { useWorkup } from '../useWorkup'
import AddHome from './AddHome.vue'
import MapCard from './MapCard.vue'
import { provideChoosing } from './useChoosing'
import MapTools from '@/shared/MapTools.vue'
import InFigures from './InFigures.vue'
import CandidateTable from './CandidateTable.vue'
import ColumnsMenu from './ColumnsMenu.vue'
import FoundCounts from './FoundCounts.vue'
import KeyHints from './KeyHints.vue'
import RecordPanel from './RecordPanel.vue'
import SavedSearches from './SavedSearches.vue'
import SearchSentence from './SearchSentence.vue'
import SideBySide from './SideBySide.vue'
import TwoHomes from './TwoHomes.vue'
import SetAside from './SetAside.vue'
import SplitPane from '@/shared/SplitPane.vue'
import Ways from '@/shared/Ways.vue'
import { useCompsKeys, WAYS } from './useCompsKeys'
import { useSearch } from './useSearch'
import { useSelection } from './useSelection'

const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const { open, found, choices, choiceOf, decide, lit, kept } = useWorkup()
const search = useSearch()
const choosing = provideChoosing()
const { asking } = choosing
const selection = useSelection()
const { shown, elsewhere, here, only, current, move, sorting } = selection
/** How many the search finds, where it finds more than are listed. */
const beyond = computed(() => {
  const { counts: n, candidates: listed } = found.data.value ?? { counts: {}, candidates: [] }
  const all = Object.values(n).reduce((sum, x) => sum + x, 0)
  return !only.value && all > listed.length ? all : 0
})
/** The most alike sales that nothing has been decided on: help never touches a decision. */
const suggested = computed(() =>
  (found.data.value?.suggested ?? []).filter((k) => choiceOf(k) === 'undecided'),
)
const fault = computed(() => found.data.value?.fault)
const tool = ref<Tool | null>(null)
const mapShare = ref(27)
const crossings = computed(() => search.live.value?.crossings ?? found.data.value?.crossings)
function addShape(shape: DrawnShape) {
  tool.value = null
  const next = search.copy()
  void search.take({ ...next, shapes: [...(next.shapes ?? []), shape] })
}
function addFence(fence: DrawnFence) {
  tool.value = null
  const next = search.copy()
  void search.take({ ...next, fences: [...(next.fences ?? []), fence] })
}
function moveShape(index: number, shape: DrawnShape) {
  const next = search.copy()
  void search.take({ ...next, shapes: (next.shapes ?? []).map((s, i) => (i === index ? shape : s)) })
}
const dropTool = () => tool.value !== null && ((tool.value = null), true)
const keys = useCompsKeys(selection, choosing, dropTool)
const { way, beside, opened, two, step, rate, asideByKey, setAside, keepOne } = keys
const around = computed(() => way.value === 'around')
function openHome(key: string) {
  here.value = key
  opened.value = true
}
function added(key: string) {
  only.value = false
  here.value = key
}
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
</script>

<template>
  <div class="comps">
    <div class="head">
      <SearchSentence :search="search" />
      <FoundCounts :search="search" />
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
        <KeyHints class="keys" />
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
</style>
