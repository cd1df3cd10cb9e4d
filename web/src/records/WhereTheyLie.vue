<script setup lang="ts">
import { computed } from 'vue'

/** Where the rows of a file lie: a dot a row, those that are not believed as rings of their own. */
type Place = { latitude: number; longitude: number; odd: boolean }
const props = defineProps<{ places: Place[] }>()
const [W, H, EDGE] = [230, 150, 8]

/** The middle of what is believed, wide enough for nearly all of it; what lies outside is told in words. */
const frame = computed(() => {
  const believed = props.places.filter((p) => !p.odd)
  const of = (values: number[]) => {
    const sorted = [...values].sort((a, b) => a - b)
    return [sorted[Math.floor(0.005 * sorted.length)] ?? 0, sorted[Math.ceil(0.995 * sorted.length) - 1] ?? 0]
  }
  const base = believed.length ? believed : props.places
  const [south, north] = of(base.map((p) => p.latitude)) as [number, number]
  const [west, east] = of(base.map((p) => p.longitude)) as [number, number]
  const shrink = Math.cos((((south + north) / 2) * Math.PI) / 180)
  const scale = Math.min(
    (W - 2 * EDGE) / Math.max((east - west) * shrink, 1e-4),
    (H - 2 * EDGE) / Math.max(north - south, 1e-4),
  )
  return { x: (west + east) / 2, y: (south + north) / 2, shrink, scale }
})
const dots = computed(() =>
  props.places.map((p) => {
    const f = frame.value
    const x = W / 2 + (p.longitude - f.x) * f.shrink * f.scale
    const y = H / 2 - (p.latitude - f.y) * f.scale
    return { x, y, odd: p.odd, inside: x >= 0 && x <= W && y >= 0 && y <= H }
  }),
)
const outside = computed(() => dots.value.filter((d) => !d.inside).length)
</script>

<template>
  <figure v-if="places.length">
    <svg :viewBox="`0 0 ${W} ${H}`" :width="W" :height="H" role="img" aria-label="Where the rows lie">
      <template v-for="(d, i) in dots" :key="i">
        <circle v-if="d.inside && !d.odd" :cx="d.x" :cy="d.y" r="1.4" class="dot" />
      </template>
      <template v-for="(d, i) in dots" :key="`odd${i}`">
        <circle v-if="d.inside && d.odd" :cx="d.x" :cy="d.y" r="4" class="odd" />
      </template>
    </svg>
    <figcaption class="quiet small">
      Where they lie<template v-if="outside">; {{ outside }} outside this picture</template>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  border-radius: var(--corner);
  background: rgb(var(--v-theme-mist));
}
.dot {
  fill: rgb(var(--v-theme-rain));
  opacity: 0.65;
}
.odd {
  fill: none;
  stroke: rgb(var(--v-theme-clay));
  stroke-width: 1.6;
}
</style>
