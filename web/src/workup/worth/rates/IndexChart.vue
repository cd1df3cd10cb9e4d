<script setup lang="ts">
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import { useLight } from '@/shared/style/useTheme'

/** What a home like these would have brought, by quarter against today, with its band and the sales behind it. */
const props = defineProps<{ points: Docs['IndexPointDoc'][] }>()
const { tokens } = useLight()
const W = 980
const H = 250
const LEFT = 44
const FOOT = 62
const all = computed(() => [...props.points].reverse())
const low = computed(() => Math.min(0, ...all.value.map((p) => p.low)))
const high = computed(() => Math.max(0, ...all.value.map((p) => p.high)))
const most = computed(() => Math.max(1, ...all.value.map((p) => p.sales)))
const x = (i: number) => LEFT + (i / Math.max(1, all.value.length - 1)) * (W - LEFT - 14)
const y = (v: number) => 8 + ((high.value - v) / (high.value - low.value || 1)) * (H - FOOT - 16)
const path = (of: (p: Docs['IndexPointDoc']) => number, points = all.value) =>
  points.map((p, i) => `${i ? 'L' : 'M'}${x(i).toFixed(1)} ${y(of(p)).toFixed(1)}`).join('')
const band = computed(
  () =>
    `${path((p) => p.high)}${[...all.value]
      .map((p, i) => ({ p, i }))
      .reverse()
      .map(({ p, i }) => `L${x(i).toFixed(1)} ${y(p.low).toFixed(1)}`)
      .join('')}Z`,
)
const lines = computed(() => {
  const step = [1, 2, 5, 10, 20].find((s) => (high.value - low.value) / s <= 6) ?? 50
  const out = []
  for (let v = Math.ceil(low.value / step) * step; v <= high.value; v += step) out.push(v)
  return out
})
const years = computed(() =>
  all.value
    .map((p, i) => ({ i, year: p.date.slice(0, 4) }))
    .filter(({ i, year }) => i === 0 || all.value[i - 1]?.date.slice(0, 4) !== year),
)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    aria-label="Prices by quarter against today, with the sales of each quarter"
  >
    <g v-for="v in lines" :key="v">
      <path :d="`M${LEFT} ${y(v)}H${W - 8}`" :stroke="v ? tokens.line : tokens.quiet" />
      <text :x="LEFT - 5" :y="y(v) + 4" text-anchor="end" font-size="12" :fill="tokens.quiet">
        {{ v > 0 ? '+' : v < 0 ? '−' : '' }}{{ Math.abs(v) }} %
      </text>
    </g>
    <path :d="band" :fill="tokens.moss" opacity="0.15" />
    <path :d="path((p) => p.pct)" fill="none" :stroke="tokens.moss" stroke-width="2.5" />
    <g v-for="(p, i) in all" :key="p.date">
      <rect
        :x="x(i) - 5"
        width="10"
        :y="H - 18 - (p.sales / most) * 32"
        :height="(p.sales / most) * 32"
        :fill="tokens.rain"
        opacity="0.55"
      >
        <title>
          {{ day(p.date) }}: {{ number(p.pct, 1) }} % ({{ number(p.low, 1) }} to {{ number(p.high, 1) }}),
          {{ number(p.sales) }} sales
        </title>
      </rect>
      <circle :cx="x(i)" :cy="y(p.pct)" r="3" :fill="tokens.moss">
        <title>{{ day(p.date) }}: {{ number(p.pct, 1) }} % against today</title>
      </circle>
    </g>
    <text
      v-for="t in years"
      :key="t.i"
      :x="x(t.i)"
      :y="H - 4"
      font-size="12"
      text-anchor="middle"
      :fill="tokens.quiet"
    >
      {{ t.year }}
    </text>
  </svg>
</template>
