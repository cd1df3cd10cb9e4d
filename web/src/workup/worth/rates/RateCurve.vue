<script setup lang="ts">
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { conditionOf, fact, money, priced } from '@/shared/format'
import { useLight } from '@/shared/style/useTheme'
import { useFields } from '@/shared/useFields'
import { localHead } from '@/shared/localForm'

/** What this home would be worth with more or less of one thing, all else as it is: the model's curve, and the grid's rate beside it. */
const props = defineProps<{ field: string; curve: Docs['CurveDoc']; rate: number; unit: string }>()
const { tokens } = useLight()
const fields = useFields()
const kind = computed(() => fields.data.value?.find((f) => f.name === props.field)?.kind ?? 'number')
const W = 500
const H = 190
const LEFT = 64
const BOTTOM = 30
const TICKS = 9

const low = computed(() => Math.min(...props.curve.values))
const high = computed(() => Math.max(...props.curve.values))
const span = computed(() => high.value - low.value)
const straight = (v: number) => props.curve.worth + props.rate * (v - props.curve.mine)
const floor = computed(() => Math.min(...props.curve.dollars))
const top = computed(() => Math.max(...props.curve.dollars))
const spread = computed(() => Math.max(top.value - floor.value, 0.02 * props.curve.worth))
const x = (v: number) => LEFT + ((v - low.value) / Math.max(high.value - low.value, 1e-9)) * (W - LEFT - 12)
const y = (d: number) => H - BOTTOM - 8 - ((d - floor.value) / spread.value) * (H - BOTTOM - 22)
const path = computed(() =>
  props.curve.values
    .map((v, i) => `${i ? 'L' : 'M'}${x(v).toFixed(1)} ${y(props.curve.dollars[i] ?? 0).toFixed(1)}`)
    .join(''),
)
/** The rate's straight line, as far as it stays inside the picture. */
const tangent = computed(() => {
  const inside = props.curve.values.filter((v) => {
    const at = y(straight(v))
    return at > 2 && at < H - BOTTOM
  })
  const [a, b] = [inside[0], inside.at(-1)]
  return a === undefined || b === undefined ? '' : `M${x(a)} ${y(straight(a))}L${x(b)} ${y(straight(b))}`
})
const shownAt = computed(() => [low.value, props.curve.mine, high.value])
const says = (v: number) =>
  props.field === 'condition_grade'
    ? conditionOf(v)
    : fact(span.value > 20 ? Math.round(v) : Math.round(v * 100) / 100, kind.value, props.unit)
const sales = computed(() => props.curve.sales.filter((v) => v >= low.value && v <= high.value))
const words = computed(
  () =>
    `From ${says(low.value)} to ${says(high.value)} ${localHead(props.unit)}, this home would be worth ${money(props.curve.dollars[0] ?? 0)} to ${money(props.curve.dollars.at(-1) ?? 0)}`,
)
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="words">
      <g v-for="d in [floor, top]" :key="d">
        <path :d="`M${LEFT} ${y(d)}H${W - 12}`" :stroke="tokens.line" />
        <text :x="LEFT - 6" :y="y(d) + 4" text-anchor="end" font-size="11" :fill="tokens.quiet">
          {{ priced(Math.round(d / 100) * 100) }}
        </text>
      </g>
      <path
        v-for="(v, i) in sales"
        :key="i"
        :d="`M${x(v)} ${H - BOTTOM}v-${TICKS}`"
        :stroke="tokens.rain"
        opacity="0.28"
      />
      <path :d="tangent" fill="none" :stroke="tokens.cedar" stroke-width="1.5" stroke-dasharray="5 4" />
      <path :d="path" fill="none" :stroke="tokens.moss" stroke-width="2.5" />
      <circle :cx="x(curve.mine)" :cy="y(curve.worth)" r="5" :fill="tokens.moss" />
      <text
        v-for="(v, i) in shownAt"
        :key="`t${i}`"
        :x="x(v)"
        :y="H - BOTTOM + 15"
        :text-anchor="v === low ? 'start' : v === high ? 'end' : 'middle'"
        font-size="11"
        :font-weight="i === 1 ? 600 : 400"
        :fill="i === 1 ? tokens.slate : tokens.quiet"
      >
        {{ i !== 1 && Math.abs(x(v) - x(curve.mine)) < 46 ? '' : says(v) }}
      </text>
    </svg>
    <figcaption class="small quiet">
      What this home would be worth by the model with more or less of it, all else as it is
      <span class="moss">(line)</span>, and by the grid’s rate <span class="cedar">(dashed)</span>; the ticks
      are the sales around here.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
}
</style>
