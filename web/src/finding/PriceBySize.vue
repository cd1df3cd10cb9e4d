<script setup lang="ts">
import { computed, ref } from 'vue'
import { money, number, sizedWords } from '@/shared/format'
import { localHead, measured } from '@/shared/localForm'
import { KIND_WORDS, markSvg } from '@/shared/map/marks'
import { useLight } from '@/shared/style/useTheme'
import { useFinding, type Candidate } from './useFinding'

/** Each home by its size and price; the home itself at what it is offered for. A mark opens its home; the table holds the same. */
const props = defineProps<{ rows: Candidate[]; area?: number; price?: number }>()
const emit = defineEmits<{ open: [key: string] }>()
const { lit, choiceOf } = useFinding()
const { tokens } = useLight()
const [W, H, LEFT, BOTTOM] = [560, 250, 58, 24]
const dots = computed(() =>
  props.rows.flatMap((row) => {
    const size = row.facts.living_area
    return typeof size === 'number' && size > 0 && row.price
      ? [{ row, x: measured(size, 'sq ft'), y: row.price }]
      : []
  }),
)
const mine = computed(() =>
  props.area && props.price ? { x: measured(props.area, 'sq ft'), y: props.price } : null,
)
const spans = computed(() => {
  const all = [...dots.value, ...(mine.value ? [mine.value] : [])]
  const span = (values: number[]): [number, number] => {
    const [low, high] = [Math.min(...values), Math.max(...values)]
    const more = (high - low || high || 1) * 0.05
    return [low - more, high + more]
  }
  return { x: span(all.map((d) => d.x)), y: span(all.map((d) => d.y)) }
})
const px = (x: number) =>
  LEFT + ((x - spans.value.x[0]) / (spans.value.x[1] - spans.value.x[0])) * (W - LEFT - 12)
const py = (y: number) =>
  H - BOTTOM - ((y - spans.value.y[0]) / (spans.value.y[1] - spans.value.y[0])) * (H - BOTTOM - 10)
const ticks = (which: 'x' | 'y') => {
  const [low, high] = spans.value[which]
  const size = 10 ** Math.floor(Math.log10((high - low) / 3))
  const step = [1, 2, 5, 10].map((k) => k * size).find((s) => (high - low) / s <= 5) ?? size * 10
  return Array.from({ length: 12 }, (_, i) => (Math.ceil(low / step) + i) * step).filter((v) => v <= high)
}
const pointed = ref<Candidate | null>(null)
const said = computed(() => {
  const row = pointed.value ?? props.rows.find((r) => r.listing_id === lit.value)
  if (!row) return mine.value ? `The house: this home, at ${money(mine.value.y)}.` : 'Point at a mark.'
  return `${row.address || row.listing_id}: ${KIND_WORDS[row.kind] ?? row.kind}, ${money(row.price)}, ${sizedWords(row.facts.living_area as number, 'sq ft')}`
})
function point(row: Candidate | null) {
  pointed.value = row
  lit.value = row?.listing_id ?? null
}
</script>

<template>
  <figure v-if="dots.length > 1" class="by-size">
    <figcaption>
      <b>Price against size</b>
      <!-- always one line: a picture that moves under the pointer would lose it -->
      <span class="said quiet small" aria-live="polite" :title="said">{{ said }}</span>
    </figcaption>
    <svg :viewBox="`0 0 ${W} ${H}`" role="group" aria-label="Price against size">
      <g class="lines">
        <template v-for="v in ticks('y')" :key="`y${v}`">
          <path :d="`M${LEFT} ${py(v)}H${W - 12}`" />
          <text :x="LEFT - 6" :y="py(v) + 4" text-anchor="end">{{ number(v) }}</text>
        </template>
        <text v-for="v in ticks('x')" :key="`x${v}`" :x="px(v)" :y="H - 6" text-anchor="middle">
          {{ number(v) }}
        </text>
        <text :x="W - 12" :y="H - 6" text-anchor="end">{{ localHead('sq ft') }}</text>
      </g>
      <!-- eslint-disable vue/no-v-html -- drawn here, of numbers alone -->
      <g
        v-for="d in dots"
        :key="d.row.listing_id"
        :transform="`translate(${px(d.x) - 12} ${py(d.y) - 12})`"
        class="dot"
        :class="{ lit: lit === d.row.listing_id }"
        role="button"
        tabindex="0"
        :aria-label="`${d.row.address || d.row.listing_id}, ${KIND_WORDS[d.row.kind] ?? d.row.kind}, ${money(d.row.price)}, ${number(d.x)} ${localHead('sq ft')}`"
        @mouseenter="point(d.row)"
        @mouseleave="point(null)"
        @focus="point(d.row)"
        @blur="point(null)"
        @click="emit('open', d.row.listing_id)"
        @keydown.enter="emit('open', d.row.listing_id)"
      >
        <g v-html="markSvg(d.row.kind, choiceOf(d.row.listing_id), tokens, lit === d.row.listing_id)" />
        <circle cx="12" cy="12" r="11" class="hit" />
      </g>
      <!-- eslint-enable vue/no-v-html -->
      <path
        v-if="mine"
        class="house"
        :d="`M${px(mine.x) - 8} ${py(mine.y) + 8}v-8l8-8l8 8v8z`"
        role="img"
        :aria-label="`This home, at ${money(mine.y)}`"
      />
    </svg>
  </figure>
</template>

<style scoped>
.by-size {
  max-width: 640px;
}
.lines path {
  stroke: rgb(var(--v-theme-line));
  stroke-width: 0.6;
}
.lines text {
  font-size: 11px;
  fill: rgb(var(--v-theme-quiet));
}
.dot {
  cursor: pointer;
}
.said {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.hit {
  fill: transparent;
}
.dot.lit,
.dot:focus-visible {
  filter: drop-shadow(0 0 3px rgb(var(--v-theme-lamp)));
}
.house {
  fill: rgb(var(--v-theme-cedar));
  stroke: rgb(var(--v-theme-surface));
  stroke-width: 1.5;
}
</style>
