<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { day } from '@/shared/format'
import { localHead } from '@/shared/localForm'
import { shownAs, type View } from './useView'

/** Price per square foot by size and months of supply by price; where a home falls is marked. */
const props = defineProps<{ view: View; home: { living_area: number | null; price: number | null } }>()
const emit = defineEmits<{
  open: [ask: { measure: string; start: string; end: string }, title: string, where: string[]]
}>()
const open = (row: Docs['BandRow'], column: Column) =>
  emit(
    'open',
    { measure: column[0], start: told.data.value!.start, end: told.data.value!.end },
    `${called(column)}, ${row.label}`,
    row.where,
  )
const told = useQuery({
  queryKey: ['bands', computed(() => [props.view, props.home])],
  queryFn: () => got(api.POST('/api/market/bands', { body: { view: props.view, ...props.home } })),
  retry: false,
})
type Column = [measure: string, label: string, unit: string]
/** Its own short label, else the measure's. */
const called = ([measure, label]: Column) => localHead(label || (told.data.value?.labels[measure]?.[0] ?? ''))
const PARTS: { name: 'size' | 'price'; title: string; main: Column; more: Column[] }[] = [
  {
    name: 'size',
    title: 'By size: price per square foot',
    main: ['median_price_per_sqft', 'Median per sq ft', '$/sq ft'],
    more: [
      ['median_price', 'Median price', '$'],
      ['closings', 'Closings', ''],
      ['for_sale', 'For sale', ''],
    ],
  },
  {
    name: 'price',
    title: 'By price: months of supply',
    main: ['months_of_supply', '', 'months'],
    more: [
      ['for_sale', 'For sale', ''],
      ['closings', 'Closings', ''],
      ['median_days', 'Median days', 'days'],
      ['median_share_of_list', 'Share of list', 'share'],
    ],
  },
]
function width(rows: Docs['BandRow'][], measure: string, row: Docs['BandRow']): string {
  const most = Math.max(...rows.map((r) => r.values[measure]?.value ?? 0))
  return `${most ? (100 * (row.values[measure]?.value ?? 0)) / most : 0}%`
}
</script>

<template>
  <div class="sheet bands">
    <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
    <template v-if="told.data.value">
      <p class="quiet small">The twelve months to {{ day(told.data.value.end) }}; for sale at their end.</p>
      <section v-for="p in PARTS" :key="p.name">
        <h2 class="mb-2">{{ localHead(p.title) }}</h2>
        <p v-if="!told.data.value[p.name].length" class="quiet">No closings here in these months.</p>
        <PlainTable v-else :aria-label="localHead(p.title)">
          <thead>
            <tr>
              <th class="band">Band</th>
              <th class="num">{{ called(p.main) }}</th>
              <th class="bar" />
              <th v-for="c in p.more" :key="c[0]" class="num">{{ called(c) }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in told.data.value[p.name]" :key="r.label" :class="{ mine: r.mine }">
              <td>{{ r.label }}<span v-if="r.mine" class="cedar small"> · the home</span></td>
              <td class="num">
                <PressArea
                  class="figure first"
                  :title="`The records behind it: ${r.label}`"
                  @click="open(r, p.main)"
                >
                  {{ shownAs(r.values[p.main[0]]?.value, p.main[2]) }}
                </PressArea>
              </td>
              <td class="bar">
                <i
                  :class="{ hollow: (r.values[p.main[0]]?.n ?? 0) < 5 }"
                  :style="{ width: width(told.data.value[p.name], p.main[0], r) }"
                  :title="
                    (r.values[p.main[0]]?.n ?? 0) < 5 ? `from only ${r.values[p.main[0]]?.n}` : undefined
                  "
                />
              </td>
              <td v-for="c in p.more" :key="c[0]" class="num">
                <PressArea class="figure" :title="`The records behind it: ${r.label}`" @click="open(r, c)">
                  {{ shownAs(r.values[c[0]]?.value, c[2]) }}
                </PressArea>
              </td>
            </tr>
          </tbody>
        </PlainTable>
      </section>
    </template>
    <p v-else-if="!told.isError.value" class="quiet">Counting …</p>
  </div>
</template>

<style scoped>
.bands {
  overflow: auto;
  padding: 14px 18px;
  display: grid;
  align-content: start;
  gap: 18px;
}
.figure {
  cursor: pointer;
}
.figure.first {
  font-weight: 600;
}
.figure:hover {
  text-decoration: underline;
}
.band {
  width: 210px;
}
.bar {
  width: 30%;
}
.bar i {
  display: block;
  height: 10px;
  background: rgb(var(--v-theme-rain));
  border: 1px solid rgb(var(--v-theme-rain));
}
.bar i.hollow {
  background: none;
}
.mine td {
  background: rgba(var(--v-theme-cedar), 0.08);
}
</style>
