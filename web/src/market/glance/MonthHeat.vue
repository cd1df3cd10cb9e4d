<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { monthDays } from '../periods'
import { shownAs, type View } from '../useView'
import { localHead } from '@/shared/localForm'
import { periodWords } from '@/shared/format'

/** A measure by year and month: the higher, the darker; a month of few homes is outlined; each opens to its records. */
const props = defineProps<{ view: View; measure: string }>()
const emit = defineEmits<{
  open: [ask: { measure: string; start: string; end: string }, title: string]
}>()
const FEW = 5
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const told = useQuery({
  queryKey: ['heat', computed(() => [props.view, props.measure])],
  queryFn: () =>
    got(api.POST('/api/market/heat', { body: { view: props.view, measure: props.measure, years: 6 } })),
  placeholderData: keepPreviousData,
  retry: false,
})
const rows = computed(() => Object.entries(told.data.value?.years ?? {}).reverse())
const values = computed(() =>
  rows.value.flatMap(([, points]) =>
    points.filter((p) => p?.value != null && !thin(p.n)).map((p) => p!.value as number),
  ),
)
const thin = (n: number) => told.data.value?.unit !== '' && n < FEW
const low = computed(() => Math.min(...values.value))
const high = computed(() => Math.max(...values.value))
function strength(value: number, n: number): number {
  if (thin(n) || high.value === low.value) return 0
  return Math.min(1, Math.max(0, (value - low.value) / (high.value - low.value)))
}
const open = (year: string, month: number) => {
  const period = `${year}-${String(month + 1).padStart(2, '0')}`
  emit(
    'open',
    { measure: props.measure, ...monthDays(period) },
    `${localHead(told.data.value!.label)}, ${periodWords(period)}`,
  )
}
</script>

<template>
  <div class="heat">
    <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
    <template v-if="told.data.value">
      <p>{{ told.data.value.sentence }}</p>
      <PlainTable :aria-label="`${told.data.value.label} by month and year`">
        <thead>
          <tr>
            <th />
            <th v-for="m in MONTHS" :key="m" class="num">{{ m }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[year, points] in rows" :key="year">
            <th scope="row">{{ year }}</th>
            <td v-for="(p, i) in points" :key="i" class="num">
              <PressArea
                v-if="p?.value != null"
                class="cell"
                :class="{ thin: thin(p.n), dark: strength(p.value, p.n) > 0.55 }"
                :style="{
                  background: thin(p.n)
                    ? 'none'
                    : `rgba(var(--v-theme-rain), ${0.08 + 0.8 * strength(p.value, p.n)})`,
                }"
                :title="`${MONTHS[i]} ${year}: ${shownAs(p.value, told.data.value.unit)}, from ${p.n}`"
                @click="open(year, i)"
              >
                {{ shownAs(p.value, told.data.value.unit) }}
              </PressArea>
            </td>
          </tr>
        </tbody>
      </PlainTable>
      <p class="quiet small">
        The darker, the higher<template v-if="told.data.value.unit !== ''"
          >; outlined: from fewer than five homes</template
        >. A press opens the records.
      </p>
    </template>
  </div>
</template>

<style scoped>
.heat {
  overflow: auto;
  display: grid;
  gap: 10px;
  align-content: start;
}
td.num {
  padding: 2px;
}
.cell {
  width: 100%;
  padding: 8px 4px;
  text-align: right;
  cursor: pointer;
  border-radius: 2px;
  font-size: var(--text-s);
}
.cell.dark {
  color: rgb(var(--v-theme-surface));
}
.cell.thin {
  outline: 1px dashed rgb(var(--v-theme-rain));
  outline-offset: -2px;
}
.cell:hover {
  text-decoration: underline;
}
</style>
