<script setup lang="ts">
import { computed } from 'vue'
import type { DrawnFence, DrawnShape, Tool } from '@/shared/map/mapShapes'
import MapTools from '@/shared/map/MapTools.vue'
import { later } from '@/shared/useReaching'
import MapCard from './MapCard.vue'
import type { SearchTools } from './search/useSearch'
import { useFinding, type Candidate } from './useFinding'
import { useFrame } from './useFrame'

/** The map of a search: its radius, areas and fences are drawn and dragged here, so that nothing else need follow the pointer. */
const props = defineProps<{ search: SearchTools; rows: Candidate[]; seen: boolean }>()
const emit = defineEmits<{ open: [key: string] }>()
const tool = defineModel<Tool | null>('tool', { required: true })
const HomeMap = later(() => import('@/shared/map/HomeMap.vue'))
const { home, found, choices, lit } = useFinding()
const frame = useFrame(found.data, home)
const draft = props.search.draft
const crossings = computed(() => props.search.live.value?.crossings ?? found.data.value?.crossings)
function addShape(shape: DrawnShape) {
  tool.value = null
  const next = props.search.copy()
  void props.search.take({ ...next, shapes: [...(next.shapes ?? []), shape] })
}
function addFence(fence: DrawnFence) {
  tool.value = null
  const next = props.search.copy()
  void props.search.take({ ...next, fences: [...(next.fences ?? []), fence] })
}
function moveShape(index: number, shape: DrawnShape) {
  const next = props.search.copy()
  void props.search.take({ ...next, shapes: (next.shapes ?? []).map((s, i) => (i === index ? shape : s)) })
}
</script>

<template>
  <HomeMap
    v-if="home && found.data.value && seen"
    :subject="frame ?? home.subject"
    :candidates="rows"
    :choices="choices"
    :lit="lit"
    :radius="home.here ? (draft?.radius_miles ?? null) : null"
    :zoom="frame?.zoom"
    :unnamed="!home.named"
    :shapes="draft?.shapes"
    :fences="draft?.fences"
    :crossings="crossings"
    :tool="tool"
    @drawn="addShape"
    @fence="addFence"
    @moved="moveShape"
    @lit="lit = $event"
    @open="emit('open', $event)"
    @radius="search.dragRadius"
  >
    <template #card="{ homes, close }">
      <MapCard :homes="homes" @open="(close(), emit('open', $event))" />
    </template>
  </HomeMap>
  <MapTools v-model="tool" :no-fences="!home?.here" />
</template>
