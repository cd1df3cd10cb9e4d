<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { DASH, money, number, perSqft } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { KIND_WORDS } from '@/shared/marks'

/** Statistics of what a search found, by kind of record. */
const props = defineProps<{ found: Docs['LookDoc'] }>()
const FIGURES: [string, string, (v: number) => string][] = [
  ['price', 'Price', money],
  ['price_per_sqft', 'Per sq ft', perSqft],
  ['living_area', 'Sq ft', (v) => number(v)],
  ['days_on_market', 'Days', (v) => number(v)],
]
const kinds = computed(() => Object.entries(props.found.counts).filter(([, n]) => n > 0))
const figure = (kind: string, what: string) =>
  props.found.figures.find((f) => f.kind === kind && f.what === what)
</script>

<template>
  <PlainTable class="small" aria-label="Statistics of what was found">
    <thead>
      <tr>
        <th>Found</th>
        <th />
        <th class="num">Low</th>
        <th class="num">Mean</th>
        <th class="num">Median</th>
        <th class="num">High</th>
      </tr>
    </thead>
    <tbody v-for="[kind, n] in kinds" :key="kind">
      <tr v-for="([what, words, show], i) in FIGURES" :key="what" :class="{ first: !i }">
        <td v-if="!i" :rowspan="FIGURES.length" class="kind">
          <span class="marked"
            ><Mark :kind="kind" /> <b>{{ number(n) }}</b>
            {{ KIND_WORDS[kind] ?? kind.replace('_', ' ') }}</span
          >
        </td>
        <td class="quiet">{{ words }}</td>
        <td v-for="at in ['low', 'mean', 'median', 'high'] as const" :key="at" class="num">
          <component :is="what === 'price' && at === 'median' ? 'b' : 'span'">{{
            figure(kind, what) ? show(figure(kind, what)![at]) : DASH
          }}</component>
        </td>
      </tr>
    </tbody>
  </PlainTable>
</template>

<style scoped>
.kind {
  white-space: nowrap;
  vertical-align: top;
}
.first td {
  border-top: var(--line);
}
tbody td {
  padding-top: 3px !important;
  padding-bottom: 3px !important;
}
</style>
