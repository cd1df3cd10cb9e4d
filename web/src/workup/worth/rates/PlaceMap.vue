<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import { signedPct } from '@/shared/format'
import { useLight } from '@/shared/style/useTheme'

/** What the spots around a home are worth of themselves against its own, and the sales that tell so: hover or walk for each. */
const props = defineProps<{ place: Docs['SpotsDoc'] }>()
const { tokens } = useLight()
const SIDE = 470
const DOT = 4
const FULL = 0.75
const picked = ref<Docs['SpotSaleDoc'] | null>(null)

const lats = computed(() => props.place.latitudes)
const lons = computed(() => props.place.longitudes)
const cell = computed(() => SIDE / lats.value.length)
/** Where a coordinate lies on the picture: the middles of the first and last cells are the ends of the scale. */
const along = (at: number, scale: number[]) => {
  const [first, last] = [scale[0] ?? 0, scale.at(-1) ?? 1]
  return cell.value / 2 + ((at - first) / (last - first)) * (SIDE - cell.value)
}
const x = (lon: number) => along(lon, lons.value)
const y = (lat: number) => along(lat, lats.value)
/** The strongest of the map, at least 2 %: colours are full there. */
const most = computed(() => Math.max(2, ...props.place.pct.flat().map(Math.abs)))
const tint = (pct: number) => (pct >= 0 ? tokens.value.moss : tokens.value.clay)
const strength = (pct: number) => (FULL * Math.min(1, Math.abs(pct) / most.value)).toFixed(2)
const sales = computed(() => [...props.place.sales].sort((a, b) => b.pct - a.pct))
const legend = computed(() => [-most.value, -most.value / 2, 0, most.value / 2, most.value])
const named = (s: Docs['SpotSaleDoc']) => s.address || s.listing_id
</script>

<template>
  <div class="place">
    <svg
      :viewBox="`0 0 ${SIDE} ${SIDE}`"
      role="img"
      :aria-label="`What spots around the home are worth against its own, from ${signedPct(-most)} to ${signedPct(most)}`"
    >
      <template v-for="(row, i) in place.pct" :key="i">
        <rect
          v-for="(pct, j) in row"
          :key="j"
          :x="j * cell"
          :y="i * cell"
          :width="cell"
          :height="cell"
          shape-rendering="crispEdges"
          :fill="tint(pct)"
          :opacity="strength(pct)"
        >
          <title>{{ signedPct(pct) }} against this home’s spot</title>
        </rect>
      </template>
      <circle
        v-for="s in sales"
        :key="s.listing_id"
        :cx="x(s.longitude)"
        :cy="y(s.latitude)"
        :r="picked === s ? DOT + 3 : DOT"
        :fill="tint(s.pct)"
        :stroke="tokens.paper"
        stroke-width="1.2"
        @pointerenter="picked = s"
        @pointerleave="picked = null"
      >
        <title>{{ named(s) }}: {{ signedPct(s.pct) }}</title>
      </circle>
      <path
        :transform="`translate(${x(place.longitude)} ${y(place.latitude)})`"
        d="M-8 1L0 -7L8 1V9H-8Z"
        :fill="tokens.cedar"
        :stroke="tokens.paper"
        stroke-width="1.5"
      />
    </svg>
    <section>
      <p class="key" aria-hidden="true">
        <span v-for="pct in legend" :key="pct">
          <i><b :style="{ background: tint(pct), opacity: strength(pct) }" /></i>{{ signedPct(pct, 0) }}
        </span>
      </p>
      <p class="small">
        What a spot is worth of itself: what its nearest sales brought beyond all that is known of them, near
        ones first, drawn towards the middle where there are few. The home’s own spot is the mark; a comp’s
        <b>Location</b> is the difference between the two.
      </p>
      <h3>The {{ sales.length }} nearest sales, against this home’s spot</h3>
      <ul class="sales small" tabindex="0" aria-label="Sales that tell what spots are worth">
        <li
          v-for="s in sales"
          :key="s.listing_id"
          :class="{ lit: picked === s }"
          @pointerenter="picked = s"
          @pointerleave="picked = null"
        >
          <span>{{ named(s) }}</span>
          <b class="num">{{ signedPct(s.pct) }}</b>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: 470px 1fr;
  gap: 28px;
}
svg {
  width: 100%;
  border: var(--line);
  border-radius: var(--corner);
}
.key {
  display: flex;
  gap: 14px;
  margin-bottom: 8px;
  font-size: var(--tiny);
}
.key i {
  display: inline-block;
  width: 16px;
  height: 10px;
  margin-right: 4px;
  border: var(--line);
}
.key i b {
  display: block;
  height: 100%;
}
h3 {
  font-size: var(--text-s);
  font-weight: 600;
  margin: 12px 0 4px;
}
.sales {
  max-height: 330px;
  overflow: auto;
  list-style: none;
  padding: 0;
}
.sales li {
  display: flex;
  justify-content: space-between;
  padding: 2px 8px 2px 4px;
}
.sales .lit {
  background: rgba(var(--v-theme-rain), 0.12);
}
</style>
