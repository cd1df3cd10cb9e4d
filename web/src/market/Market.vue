<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, defineAsyncComponent, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { DASH, number } from '@/shared/format'

const MarketChart = defineAsyncComponent(() => import('./MarketChart.vue'))
const MEASURES = ['closings', 'median_price', 'for_sale']
const area = ref<string>('')
const kind = ref<string>('')
const years = ref(5)
const at = ref<number | null>(null)

const areas = useQuery({
  queryKey: ['areas'],
  queryFn: () => got(api.GET('/api/areas')),
  staleTime: Infinity,
})
const kinds = useQuery({
  queryKey: ['home-kinds'],
  queryFn: () => got(api.GET('/api/home-kinds')),
  staleTime: Infinity,
})
const view = useQuery({
  queryKey: ['market', area, kind, years],
  queryFn: () =>
    got(
      api.GET('/api/market', {
        params: {
          query: {
            measure: MEASURES,
            by: 'month',
            years: years.value,
            area: area.value || undefined,
            home_kind: kind.value || undefined,
          },
        },
      }),
    ),
  placeholderData: keepPreviousData,
})
const places = computed(() => [
  { title: 'the whole town', value: '' },
  ...(areas.data.value ?? [])
    .filter((a) => a.kind === 'neighbourhood')
    .map((a) => ({ title: a.name, value: a.name })),
])
const kindItems = computed(() => [
  { title: 'homes of any kind', value: '' },
  ...Object.entries(kinds.data.value ?? {})
    .filter(([k]) => ['detached', 'attached', 'condominium', 'small_multi_family'].includes(k))
    .map(([value, title]) => ({ title, value })),
])
const periods = computed(() => view.data.value?.periods ?? [])
const backwards = computed(() => periods.value.map((p, i) => ({ ...p, i })).reverse())
const shown = (value: number | null) => (value === null ? DASH : number(value))
</script>

<template>
  <div class="market">
    <h1 class="sr">Market</h1>
    <p class="sentence">
      <b>Closings</b>, <b>median price</b> and <b>homes for sale</b> by month over the last
      <select v-model="years" aria-label="Years">
        <option v-for="n in [1, 2, 3, 5, 10]" :key="n" :value="n">
          {{ n }} {{ n === 1 ? 'year' : 'years' }}
        </option>
      </select>
      for
      <select v-model="kind" aria-label="Kind of home">
        <option v-for="k in kindItems" :key="k.value" :value="k.value">{{ k.title }}</option>
      </select>
      in
      <select v-model="area" aria-label="Place">
        <option v-for="p in places" :key="p.value" :value="p.value">{{ p.title }}</option>
      </select>
    </p>
    <p v-if="view.isError.value" class="lamp" role="alert">{{ view.error.value?.message }}</p>
    <div v-if="periods.length" class="both">
      <div class="sheet chart"><MarketChart :periods="periods" :at="at" @at="at = $event" /></div>
      <div class="sheet figures">
        <table class="plain" aria-label="Market figures by month">
          <thead>
            <tr>
              <th>Month</th>
              <th class="num">Closings</th>
              <th class="num">Median price</th>
              <th class="num">For sale at the end</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="p in backwards"
              :key="p.period"
              :class="{ at: at === p.i }"
              @mouseenter="at = p.i"
              @mouseleave="at = null"
            >
              <td>{{ p.period }}<span v-if="!p.finished" class="quiet small"> so far</span></td>
              <td class="num">{{ shown(p.values.closings.value) }}</td>
              <td class="num">
                {{ shown(p.values.median_price.value) }}
                <span
                  v-if="p.values.median_price.value !== null && p.values.median_price.n < 5"
                  class="quiet small"
                  :title="`from only ${p.values.median_price.n} closings`"
                  >({{ p.values.median_price.n }})</span
                >
              </td>
              <td class="num">{{ shown(p.values.for_sale.value) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <p v-else-if="!view.isError.value" class="quiet">Counting …</p>
  </div>
</template>

<style scoped>
.market {
  height: 100%;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  padding: 20px 24px;
}
.sr {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.sentence {
  font-size: 18px;
  line-height: 1.7;
  margin-bottom: 14px;
}
select {
  font-weight: 600;
  border-bottom: 2px solid rgb(var(--v-theme-rain));
  cursor: pointer;
  color: inherit;
  background: rgb(var(--v-theme-mist));
  padding: 0 2px;
}
.both {
  grid-row: 3;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 18px;
}
.chart {
  padding: 12px 8px 4px;
  min-height: 0;
}
.figures {
  overflow: auto;
  min-height: 0;
}
.figures thead th {
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
}
.at td {
  background: rgba(var(--v-theme-lamp), 0.16);
}
</style>
