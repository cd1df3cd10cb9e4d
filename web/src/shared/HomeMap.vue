<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import 'ol/ol.css'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { api, got, type Docs } from './api/client'
import { HomeMapDrawing } from './homeMap'
import type { Choice } from './marks'
import { useLight } from './useTheme'

const props = defineProps<{
  subject: Docs['SubjectDoc']
  candidates: Docs['CandidateDoc'][]
  choices?: Record<string, Choice>
  lit?: string | null
  radius?: number | null
  zoom?: number
}>()
const emit = defineEmits<{
  lit: [key: string | null]
  open: [key: string]
  radius: [miles: number, done: boolean]
}>()

const box = ref<HTMLElement>()
const { tokens } = useLight()
const base = useQuery({ queryKey: ['map'], queryFn: () => got(api.GET('/api/map')), staleTime: Infinity })
let drawing: HomeMapDrawing | null = null

let asked = 0
async function lookFine(west: number, south: number, east: number, north: number) {
  const turn = ++asked
  try {
    const made = await got(api.GET('/api/map/fine', { params: { query: { west, south, east, north } } }))
    if (turn === asked) drawing?.fine(made)
  } catch {
    // the map stands without its lots
  }
}

onMounted(() => {
  drawing = new HomeMapDrawing(box.value as HTMLElement, tokens.value, {
    lit: (key) => emit('lit', key),
    open: (key) => emit('open', key),
    fine: lookFine,
    radius: (miles, done) => emit('radius', miles, done),
  })
  drawing.place(props.subject, props.radius ?? null, props.zoom)
  if (base.data.value) drawing.base(base.data.value)
  drawing.marks(props.candidates, props.choices ?? {}, props.lit ?? null)
})
onBeforeUnmount(() => drawing?.remove())
watch(base.data, (now) => now && drawing?.base(now))
watch(tokens, (now) => drawing?.recolour(now))
watch(
  () => [props.candidates, props.choices, props.lit] as const,
  () => drawing?.marks(props.candidates, props.choices ?? {}, props.lit ?? null),
)
watch(
  () => [props.subject.latitude, props.subject.longitude, props.radius] as const,
  () => drawing?.place(props.subject, props.radius ?? null, props.zoom),
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
</template>

<style scoped>
.map {
  width: 100%;
  height: 100%;
}
</style>
