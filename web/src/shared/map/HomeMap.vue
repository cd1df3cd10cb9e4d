<script setup lang="ts" generic="T extends Marked">
import { useQuery } from '@tanstack/vue-query'
import 'ol/ol.css'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { api, got } from '../api/client'
import { HomeMapDrawing, type Marked } from './homeMap'
import HomeCard from './HomeCard.vue'
import type { DrawnFence, DrawnShape, Tool } from './mapShapes'
import LinkButton from '../ui/LinkButton.vue'
import type { Choice } from './marks'
import { useMapLayers } from './useMapLayers'
import { useLight } from '../style/useTheme'

const props = defineProps<{
  subject: { latitude: number; longitude: number; placed?: boolean }
  candidates: T[]
  choices?: Record<string, Choice>
  lit?: string | null
  radius?: number | null
  zoom?: number
  shapes?: DrawnShape[]
  fences?: DrawnFence[]
  crossings?: number[][]
  tool?: Tool | null
  movable?: boolean
  unnamed?: boolean
}>()
const emit = defineEmits<{
  lit: [key: string | null]
  open: [key: string]
  radius: [miles: number, done: boolean]
  drawn: [shape: DrawnShape]
  fence: [fence: DrawnFence]
  moved: [index: number, shape: DrawnShape]
  home: [latitude: number, longitude: number]
}>()

const box = ref<HTMLElement>()
const said = ref('')
const { tokens } = useLight()
const base = useQuery({ queryKey: ['map'], queryFn: () => got(api.GET('/api/map')), staleTime: Infinity })
const drawing = shallowRef<HomeMapDrawing | null>(null)
const { aerial, hasAerial, words } = useMapLayers(drawing)

/** What the card speaks of: the marks under the pointer, until it has gone from mark and card for a moment. */
const card = ref<{ keys: string[]; x: number; y: number } | null>(null)
let leaving = 0
function under(keys: string[], at: number[]) {
  if (keys.join() === card.value?.keys.join()) return window.clearTimeout(leaving)
  if (!keys.length) return leave()
  window.clearTimeout(leaving)
  const [x, y] = [at[0]!, at[1]!]
  card.value = { keys, x, y }
  emit('lit', keys[0]!)
}
function leave() {
  window.clearTimeout(leaving)
  leaving = window.setTimeout(close, 260)
}
function close() {
  if (card.value) emit('lit', null)
  card.value = null
}
const MOST_CARDS = 6
const pointed = computed(() => props.candidates.filter((c) => card.value?.keys.includes(c.listing_id)))
const stay = () => window.clearTimeout(leaving)
/** Beside the mark, on the side with more room. */
const placed = computed(() => {
  const { x, y } = card.value ?? { x: 0, y: 0 }
  const [w, h] = [box.value?.clientWidth ?? 0, box.value?.clientHeight ?? 0]
  return {
    [x > w / 2 ? 'right' : 'left']: `${(x > w / 2 ? w - x : x) + 9}px`,
    [y > h / 2 ? 'bottom' : 'top']: `${Math.max(4, (y > h / 2 ? h - y : y) - 14)}px`,
  }
})

let asked = 0
async function lookFine(west: number, south: number, east: number, north: number) {
  const turn = ++asked
  try {
    const made = await got(api.GET('/api/map/fine', { params: { query: { west, south, east, north } } }))
    if (turn === asked) drawing.value?.fine(made)
  } catch {
    // the map stands without its lots
  }
}

onMounted(() => {
  box.value?.addEventListener('pointerleave', leave)
  box.value?.addEventListener('pointerdown', close) // what is dragged is not covered by a card
  const made = new HomeMapDrawing(box.value as HTMLElement, tokens.value, {
    lit: under,
    open: (key) => emit('open', key),
    fine: lookFine,
    radius: (miles, done) => emit('radius', miles, done),
    drawn: (shape) => emit('drawn', shape),
    fence: (fence) => emit('fence', fence),
    moved: (index, shape) => emit('moved', index, shape),
    home: (latitude, longitude) => emit('home', latitude, longitude),
    says: (words) => (said.value = words),
  })
  made.place(props.subject, props.radius ?? null, props.zoom, props.unnamed)
  if (base.data.value) made.base(base.data.value)
  made.marks(props.candidates, props.choices ?? {}, props.lit ?? null)
  made.limits(props.shapes ?? [], props.fences ?? [], props.crossings ?? [])
  drawing.value = made
  letMove()
  if (props.tool) made.draw(props.tool) // the pen that was in hand before there was a map
})
let still: (() => void) | undefined
function letMove() {
  still?.()
  still = props.movable ? drawing.value?.movable() : undefined
}
onBeforeUnmount(() => drawing.value?.remove())
watch(
  () => [props.shapes, props.fences, props.crossings] as const,
  () => drawing.value?.limits(props.shapes ?? [], props.fences ?? [], props.crossings ?? []),
)
watch(
  () => props.tool,
  (tool) => {
    drawing.value?.draw(tool ?? null)
    if (tool) box.value?.focus()
  },
)
watch(() => props.movable, letMove)
watch(base.data, (now) => now && drawing.value?.base(now))
watch(tokens, (now) => drawing.value?.recolour(now))
watch(
  () => props.lit,
  (lit) => drawing.value?.light(lit ?? null),
)
watch(
  () => [props.candidates, props.choices] as const,
  () => drawing.value?.marks(props.candidates, props.choices ?? {}, props.lit ?? null),
)
watch(
  () => [props.subject.latitude, props.subject.longitude, props.radius] as const,
  () => {
    drawing.value?.place(props.subject, props.radius ?? null, props.zoom, props.unnamed)
    letMove()
  },
)
</script>

<template>
  <div
    ref="box"
    class="map"
    tabindex="0"
    role="application"
    aria-label="Map of the home and what is around it"
  />
  <div
    v-if="card && pointed.length"
    class="card sheet small"
    :style="placed"
    @mouseenter="stay"
    @mouseleave="leave"
  >
    <slot name="card" :homes="pointed" :close="close">
      <HomeCard v-for="home in pointed.slice(0, MOST_CARDS)" :key="home.listing_id" :home="home" />
      <p v-if="pointed.length > MOST_CARDS" class="quiet">and {{ pointed.length - MOST_CARDS }} more here</p>
    </slot>
  </div>
  <p v-if="subject.placed === false" class="unplaced lamp small">
    It is not known where this home stands. {{ movable ? 'Click where it does.' : 'Set its place in Home.' }}
  </p>
  <p v-if="words || hasAerial" class="whose small">
    <LinkButton v-if="hasAerial" :aria-pressed="aerial" @click="aerial = !aerial">{{
      aerial ? 'streets' : 'from the air'
    }}</LinkButton>
    <span v-if="words" class="quiet">{{ words }}</span>
  </p>
  <p v-show="said" class="said small" role="status">{{ said }}</p>
</template>

<style scoped>
.whose {
  position: absolute;
  right: 0;
  bottom: 0;
  max-width: 70%;
  display: flex;
  gap: 10px;
  padding: 1px 8px;
  background: rgb(var(--v-theme-surface));
  border-top-left-radius: var(--corner);
}
.map {
  width: 100%;
  height: 100%;
  --ol-background-color: rgb(var(--v-theme-surface));
  --ol-accent-background-color: rgb(var(--v-theme-mist));
  --ol-partial-background-color: rgb(var(--v-theme-surface)); /* the scale lies on names of places */
  --ol-subtle-background-color: rgb(var(--v-theme-line));
  --ol-foreground-color: rgb(var(--v-theme-on-surface));
  --ol-subtle-foreground-color: rgb(var(--v-theme-quiet));
}
.card {
  position: absolute;
  z-index: 4;
  width: max-content;
  max-width: min(290px, calc(100% - 16px));
  max-height: calc(100% - 16px);
  overflow: auto;
  padding: 7px 10px;
  box-shadow: 0 6px 18px rgba(20, 40, 50, 0.18);
}
.unplaced {
  position: absolute;
  top: 8px;
  left: 44px;
  right: 60px;
  background: rgb(var(--v-theme-surface));
  pointer-events: none;
}
.said {
  position: absolute;
  left: 8px;
  right: 8px;
  bottom: 34px;
  padding: 5px 9px;
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  border: var(--line);
  pointer-events: none;
}
</style>
