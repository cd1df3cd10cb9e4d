<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { computed } from 'vue'
import { number } from '@/shared/format'
import { useLight } from '@/shared/style/useTheme'
import { useBacktest } from './useBacktest'

const { test, start, stop, fault, ours, perSqft, BIN, EDGE } = useBacktest()
const { tokens } = useLight()
const W = 560
const H = 150
const BASE = 122
const result = computed(() => test.data.value?.result)
const method = computed(() => result.value?.methods.adjusted_comps)
const other = computed(() => result.value?.methods.mean_price_per_sqft)
const top = computed(() => Math.max(1, ...ours.value, ...perSqft.value))
const x = (pct: number) => ((pct + EDGE) / (2 * EDGE)) * W
const h = (n: number) => (n / top.value) * (BASE - 10)
const pct = (share: number | null | undefined, digits = 1) => `${number(100 * (share ?? 0), digits)} %`
const TICKS = [-30, -20, -10, 0, 10, 20, 30]
</script>

<template>
  <section aria-labelledby="how-close">
    <h2 id="how-close" class="mb-1">How close would this have been?</h2>
    <p v-if="fault" class="lamp" role="alert">{{ fault }}</p>
    <template v-if="test.data.value?.stage === 'running'">
      <p role="status">
        Pricing past sales around here as if they were not known: {{ number(test.data.value.done) }} of
        {{ number(test.data.value.of) }} …
        <LinkButton @click="stop">stop</LinkButton>
      </p>
      <progress :value="test.data.value.done" :max="test.data.value.of || 1" aria-label="Sales priced" />
    </template>
    <template v-else-if="result && method">
      <p>
        Half of the last <b>{{ number(result.subjects) }}</b> sales around here came within
        <b class="moss">{{ pct(method.mdape) }}</b> of what they brought; by mean price per sq ft, within
        {{ pct(other?.mdape) }}. <b>{{ pct(result.range.hits, 0) }}</b> of the prices lay inside the range,
        which is meant to hold 80 %.
      </p>
      <svg
        :viewBox="`0 0 ${W} ${H}`"
        role="img"
        aria-label="How far predictions lay from prices, in bars of 2.5 %"
        class="bars"
      >
        <rect
          v-for="(n, i) in ours"
          :key="i"
          :x="x(-EDGE + i * BIN) + 1"
          :y="BASE - h(n)"
          :width="x(BIN) - x(0) - 2"
          :height="h(n)"
          :fill="tokens.moss"
        >
          <title>{{ n }} sales from {{ -EDGE + i * BIN }} to {{ -EDGE + (i + 1) * BIN }} %</title>
        </rect>
        <path
          :d="
            perSqft
              .map(
                (n, i) => `${i ? 'L' : 'M'}${x(-EDGE + i * BIN)} ${BASE - h(n)}H${x(-EDGE + (i + 1) * BIN)}`,
              )
              .join('')
          "
          fill="none"
          :stroke="tokens.slate"
          stroke-width="1.5"
        />
        <path :d="`M0 ${BASE}H${W}`" :stroke="tokens.slate" />
        <path :d="`M${x(0)} 4V${BASE}`" :stroke="tokens.slate" stroke-dasharray="2 3" />
        <text
          v-for="t in TICKS"
          :key="t"
          :x="Math.min(W - 16, Math.max(16, x(t)))"
          :y="BASE + 15"
          text-anchor="middle"
          font-size="11"
          :fill="tokens.quiet"
        >
          {{ t > 0 ? `+${t}` : t }} %
        </text>
      </svg>
      <p class="small quiet">
        <i class="key ours" /> adjusted comps <i class="key line" /> mean price per sq ft · the prediction
        against what was paid; beyond ±30 % at the edges
      </p>
      <PlainTable class="small" aria-label="Range by fifths of predicted price">
        <thead>
          <tr>
            <th>Predicted</th>
            <th class="num">Sales</th>
            <th class="num">Inside the range</th>
            <th class="num">Its width</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in result.range.by_fifth" :key="f.low">
            <td>{{ number(f.low) }}–{{ number(f.high) }}</td>
            <td class="num">{{ number(f.n) }}</td>
            <td class="num">{{ pct(f.hits, 0) }}</td>
            <td class="num">{{ pct(f.median_width, 0) }}</td>
          </tr>
        </tbody>
      </PlainTable>
      <LinkButton class="small mt-1" @click="start">Test again</LinkButton>
    </template>
    <template v-else>
      <p v-if="test.data.value?.message" class="lamp" role="alert">{{ test.data.value.message }}</p>
      <p class="quiet">
        The last 200 sales around here, priced from what was known before each of them. The range is as wide
        as they show that it must be.
      </p>
      <ActButton class="mt-2" @click="start">Test it on the last 200 sales</ActButton>
    </template>
  </section>
</template>

<style scoped>
.bars {
  width: 100%;
  max-width: 600px;
  margin-top: 8px;
}
progress {
  width: 100%;
  max-width: 420px;
  height: 8px;
  accent-color: rgb(var(--v-theme-moss));
}
.key {
  display: inline-block;
  width: 14px;
  height: 9px;
  margin: 0 4px 0 8px;
}
.ours {
  background: rgb(var(--v-theme-moss));
}
.line {
  height: 0;
  border-top: 2px solid rgb(var(--v-theme-on-surface));
  vertical-align: middle;
}
table {
  max-width: 600px;
  margin-top: 8px;
}
</style>
