<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, provide, ref, watchEffect } from 'vue'
import type { Tool } from '@/shared/map/mapShapes'
import { CHOSEN } from '@/shared/map/marks'
import SplitPane from '@/shared/SplitPane.vue'
import { useNarrow } from '@/shared/useNarrow'
import Ways from '@/shared/Ways.vue'
import CandidateTable from './CandidateTable.vue'
import ChosenFigures from './ChosenFigures.vue'
import ColumnsMenu from './ColumnsMenu.vue'
import FindingMap from './FindingMap.vue'
import FoundCounts from './search/FoundCounts.vue'
import InFigures from './InFigures.vue'
import KeyHints from './KeyHints.vue'
import RecordPanel from './record/RecordPanel.vue'
import SavedSearches from './search/SavedSearches.vue'
import SearchSentence from './search/SearchSentence.vue'
import SideBySide from './record/SideBySide.vue'
import TwoHomes from './record/TwoHomes.vue'
import type { Choosing } from './useChoosing'
import { useFinding, type Candidate } from './useFinding'
import { NARROW_WAYS, useFindingKeys, WAYS, type Way } from './useFindingKeys'
import { useSearch } from './search/useSearch'
import { useSelection } from './useSelection'

/**
 * The room of homes: the search as a sentence, the map, the table, one home, homes side by side, figures. A workup and a look
 * stand in it alike; what they add comes through the slots.
 */
const props = defineProps<{ choosing: Choosing; sortedBy?: string }>()
const { found, kept, way: choosingBy } = useFinding()
const search = useSearch()
const selection = useSelection(props.sortedBy ?? 'likeness')
const { shown, elsewhere, here, only, current, move, sorting } = selection
const word = choosingBy === 'keep' ? 'kept' : 'ticked'
provide(CHOSEN, word)
/** How many the search finds, where it finds more than are listed. */
const beyond = computed(() => {
  const { counts: n, candidates: listed } = found.data.value ?? { counts: {}, candidates: [] }
  const all = Object.values(n).reduce((sum, x) => sum + x, 0)
  return !only.value && all > listed.length ? all : 0
})
const fault = computed(() => found.data.value?.fault)
const tool = ref<Tool | null>(null)
const mapShare = ref(27)
const dropTool = () => tool.value !== null && ((tool.value = null), true)
const narrow = useNarrow()
/** A map is drawn once there is room for it: one that was hidden would not know how wide it is. */
const mapSeen = ref(false)
const keys = useFindingKeys(selection, props.choosing, dropTool, narrow)
const { way, beside, opened, two, step, rate, asideByKey, keepOne } = keys
const ways = computed(() => (narrow.value ? NARROW_WAYS : WAYS) as Record<Way, string>)
const both = computed(() => way.value === 'around')
watchEffect(() => (mapSeen.value ||= both.value || way.value === 'map'))
function openHome(key: string) {
  here.value = key
  opened.value = true
}
/** Brings a home into sight, whatever is narrowed to. */
function show(key: string, open = false) {
  if (!shown.value.some((c) => c.listing_id === key)) only.value = false
  here.value = key
  if (open) opened.value = true
}
const listed = (key: string) => shown.value.some((c: Candidate) => c.listing_id === key)
defineExpose({ show, listed, shown, here, setAside: keys.setAside, current, opened })
</script>

<template>
  <div class="room" :class="{ narrow }">
    <div class="head">
      <Ways v-if="narrow" v-model="way" :ways="ways" label="Ways to look" class="mb-2" />
      <SearchSentence v-if="!narrow || way === 'search'" :search="search" />
      <FoundCounts :search="search" :brief="narrow && way !== 'search'" />
      <ChosenFigures v-if="kept" :word="word" @open="way = 'figures'" />
      <div v-if="!narrow || way !== 'map'" class="act">
        <slot v-if="!narrow || way !== 'figures'" name="first" />
        <Ways v-if="!narrow" v-model="way" :ways="ways" label="Ways to look" />
        <ActButton :active="only" plain @click="only = !only">Only {{ word }} ({{ kept }})</ActButton>
        <ColumnsMenu v-if="both && !narrow" />
        <SavedSearches v-if="!narrow || way === 'search'" @take="search.take($event)" />
        <slot name="more" :shown="shown" />
        <KeyHints v-if="!narrow" class="keys" />
      </div>
    </div>
    <SideBySide v-if="beside" :rows="shown" :here="here" @select="here = $event" @open="openHome" />
    <InFigures v-if="way === 'figures'" :rows="shown" :word="word" @open="openHome" />
    <SplitPane
      v-show="both || way === 'map' || way === 'list'"
      v-model="mapShare"
      left="map"
      right="table"
      :usual="27"
      :only="way === 'map' ? 'left' : way === 'list' ? 'right' : undefined"
    >
      <template #left>
        <FindingMap v-model:tool="tool" :search="search" :rows="shown" :seen="mapSeen" @open="openHome" />
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
            <p v-else-if="only" class="mb-2">None is {{ word }} yet.</p>
            <p v-else class="mb-2">This search finds no home.</p>
            <p v-for="w in search.helps.value" :key="w.words" class="mb-1">
              <LinkButton @click="search.take(w.search)">{{ w.words }}</LinkButton> would find {{ w.total }}.
            </p>
          </template>
        </CandidateTable>
        <RecordPanel
          v-if="opened && current && both && !narrow"
          :row="current"
          @close="opened = false"
          @next="move($event)"
        >
          <template #acts><slot name="of-home" :home="current" /></template>
        </RecordPanel>
      </template>
    </SplitPane>
    <TwoHomes
      v-if="two && current"
      :right="current"
      :resting="!!choosing.asking.value"
      @close="two = false"
      @next="step"
      @keep="keepOne"
      @aside="asideByKey"
      @rate="rate"
    />
    <RecordPanel
      v-if="opened && current && (!both || narrow)"
      class="over"
      :row="current"
      @close="opened = false"
      @next="step($event)"
    >
      <template #acts><slot name="of-home" :home="current" /></template>
    </RecordPanel>
    <slot name="over" :set-aside="keys.setAside" />
  </div>
</template>

<style scoped>
.room {
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
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  margin-top: 6px;
}
.over {
  position: absolute;
  inset: 0;
}
.keys {
  margin-left: auto;
}
@media (max-height: 560px) {
  .room {
    grid-template-rows: auto 380px;
    height: auto;
    min-height: 100%;
  }
}
.narrow .head {
  padding: 8px 12px;
}
.narrow .over {
  position: fixed;
  inset: 0;
  z-index: 20;
}
</style>
