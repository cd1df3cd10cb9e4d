<script setup lang="ts">
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { number } from '@/shared/format'
import { useLight } from '@/shared/style/useTheme'
import { localHead, sizeOf } from '@/shared/localForm'

/** Local sales as dots: what they have more or less of one thing against what they brought more or less, and the fit. */
const props = defineProps<{ dots: Docs['DotDoc'][]; slope: number; inPercent: boolean; unit: string }>()
const { tokens } = useLight()
const W = 500
const H = 300
const LEFT = 44
const BOTTOM = 34

/** Half the breadth that holds all but the outermost few. */
function reach(values: number[]): number {
  const sorted = values.map(Math.abs).sort((a, b) => a - b)
  return Math.max(sorted[Math.floor(sorted.length * 0.98)] ?? 1, 1e-9)
}
/** In what is shown of it; in percent it is the same. */
const size = computed(() => (props.inPercent ? 1 : sizeOf(props.unit)))
const placed = computed(() => props.dots.map((d) => ({ ...d, x: d.x * size.value })))
const rx = computed(() => reach(placed.value.map((d) => d.x)) * 1.05)
const ry = computed(() => reach(placed.value.map((d) => d.y)) * 1.05)
const x = (v: number) => LEFT + ((v + rx.value) / (2 * rx.value)) * (W - LEFT - 8)
const y = (v: number) => 6 + ((ry.value - v) / (2 * ry.value)) * (H - BOTTOM - 6)
const shown = computed(() =>
  placed.value.filter((d) => Math.abs(d.x) <= rx.value && Math.abs(d.y) <= ry.value),
)
const fit = (v: number) =>
  props.inPercent
    ? 100 * ((1 + v / 100) ** props.slope - 1)
    : 100 * (Math.exp((props.slope * v) / size.value / 100) - 1)
const line = computed(() => {
  const steps = Array.from({ length: 41 }, (_, i) => -rx.value + (i / 40) * 2 * rx.value)
  return steps
    .map((v) => ({ v, p: fit(v) }))
    .filter(({ p }) => Math.abs(p) <= ry.value)
    .map(({ v, p }, i) => `${i ? 'L' : 'M'}${x(v).toFixed(1)} ${y(p).toFixed(1)}`)
    .join('')
})
function round(top: number): number[] {
  const size = 10 ** Math.floor(Math.log10(top))
  const step = [0.2, 0.5, 1, 2, 5].map((m) => m * size).find((s) => top / s <= 3.2) ?? size
  const n = Math.floor((0.96 * top) / step)
  return Array.from({ length: 2 * n + 1 }, (_, i) => (i - n) * step)
}
const tick = (v: number, percent: boolean) =>
  `${v > 0 ? '+' : v < 0 ? '−' : ''}${number(Math.abs(v), Math.abs(v) < 1 && v !== 0 ? 1 : 0)}${percent ? ' %' : ''}`
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" role="img" aria-label="Sales around here along this one difference">
    <g v-for="v in round(ry)" :key="`y${v}`">
      <path
        :d="`M${LEFT} ${y(v)}H${W - 8}`"
        :stroke="v ? tokens.line : tokens.quiet"
        :opacity="v ? 0.8 : 0.9"
      />
      <text :x="LEFT - 5" :y="y(v) + 4" text-anchor="end" font-size="11" :fill="tokens.quiet">
        {{ tick(v, true) }}
      </text>
    </g>
    <g v-for="v in round(rx)" :key="`x${v}`">
      <path v-if="!v" :d="`M${x(v)} 6V${H - BOTTOM}`" :stroke="tokens.quiet" />
      <text :x="x(v)" :y="H - BOTTOM + 14" text-anchor="middle" font-size="11" :fill="tokens.quiet">
        {{ tick(v, inPercent) }}
      </text>
    </g>
    <text :x="W - 8" :y="H - 4" text-anchor="end" font-size="11" :fill="tokens.quiet">
      more {{ inPercent ? 'of it' : localHead(unit) || 'of it' }} than the homes next to it
    </text>
    <circle
      v-for="d in shown"
      :key="d.listing_id"
      :cx="x(d.x)"
      :cy="y(d.y)"
      :r="1.6 + 3.4 * Math.sqrt(d.weight)"
      :fill="tokens.rain"
      :opacity="0.25 + 0.5 * d.weight"
    />
    <path :d="line" fill="none" :stroke="tokens.moss" stroke-width="2.5" />
  </svg>
</template>
