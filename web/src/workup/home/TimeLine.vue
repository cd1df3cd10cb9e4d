<script setup lang="ts">
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { day, money } from '@/shared/format'

const props = defineProps<{ past: Docs['PastDoc'][] }>()
const W = 420
const H = 110
const known = computed(() => props.past.filter((p) => p.date && p.price && p.price > 1000 && !p.per))
const days = computed(() => known.value.map((p) => new Date(p.date!).getTime()))
const prices = computed(() => known.value.map((p) => p.price!))
const span = (values: number[]): [number, number] => [Math.min(...values), Math.max(...values)]
const x = (i: number) => {
  const [a, b] = span(days.value)
  return 14 + ((W - 28) * (days.value[i]! - a)) / (b - a || 1)
}
const y = (i: number) => {
  const [a, b] = span(prices.value)
  return 16 + (H - 34) * (1 - (prices.value[i]! - a) / (b - a || 1))
}
const sold = (what: string) => ['sold', 'deed'].includes(what)
const line = computed(() =>
  known.value
    .map((p, i) => ({ p, i }))
    .filter(({ p }) => sold(p.what))
    .map(({ i }) => `${x(i)},${y(i)}`)
    .join(' '),
)
const years = computed(() => span(days.value).map((d) => new Date(d).getFullYear()))
</script>

<template>
  <svg
    v-if="known.length > 2"
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    aria-label="The home’s prices over time; the table below says the same"
  >
    <line x1="0" :x2="W" :y1="H - 14" :y2="H - 14" class="axis" />
    <polyline :points="line" class="line" />
    <g v-for="(p, i) in known" :key="i">
      <circle
        :cx="x(i)"
        :cy="y(i)"
        :r="p.what === 'assessed' ? 2.5 : 4.5"
        :class="{ hollow: !sold(p.what), roll: p.what === 'assessed' }"
      >
        <title>{{ p.what }} {{ day(p.date) }}: {{ money(p.price) }}</title>
      </circle>
    </g>
    <text x="2" :y="H - 2">{{ years[0] }}</text>
    <text :x="W - 2" :y="H - 2" text-anchor="end">{{ years[1] }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.axis {
  stroke: rgb(var(--v-theme-line));
}
.line {
  fill: none;
  stroke: rgb(var(--v-theme-rain));
  stroke-width: 1.5;
}
circle {
  fill: rgb(var(--v-theme-rain));
  stroke: rgb(var(--v-theme-rain));
  stroke-width: 2;
}
circle.roll {
  stroke: rgb(var(--v-theme-quiet));
  stroke-width: 1;
}
circle.hollow {
  fill: rgb(var(--v-theme-mist));
}
text {
  font-size: var(--tiny);
  fill: rgb(var(--v-theme-quiet));
}
</style>
