<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { day } from '@/shared/format'
import { shownAs, type View } from './useView'
import { localHead } from '@/shared/localForm'

/** This year to the newest day against the same days of the last: every measure at once. */
const props = defineProps<{ view: View }>()
const emit = defineEmits<{
  open: [ask: { measure: string; start: string; end: string }, title: string]
}>()
const told = useQuery({
  queryKey: ['so-far', computed(() => props.view)],
  queryFn: () => got(api.POST('/api/market/year-so-far', { body: props.view })),
  placeholderData: keepPreviousData,
  retry: false,
})
const rows = computed(() => told.data.value?.rows ?? [])
const most = computed(() =>
  Math.max(5, ...rows.value.map((r) => Math.min(60, Math.abs(r.change?.size ?? 0)))),
)
const year = computed(() => Number(told.data.value?.end.slice(0, 4)))
const AGES = ['now', 'before', 'earlier'] as const
/** The records behind one figure: of a year's days up to the newest. */
function open(measure: string, label: string, back: number) {
  const end = told.data.value!.end.replace(/^\d+/, String(year.value - back)).replace('-02-29', '-02-28')
  emit('open', { measure, start: `${year.value - back}-01-01`, end }, `${label}, ${year.value - back} so far`)
}
const width = (size: number) => `${(50 * Math.min(60, Math.abs(size))) / most.value}%`
</script>

<template>
  <div class="sheet sofar">
    <p v-if="!told.data.value" class="quiet">
      {{ told.isError.value ? 'Not counted: the view above says why.' : 'Counting …' }}
    </p>
    <h2 v-else>The year so far, to {{ day(told.data.value.end) }}</h2>
    <PlainTable v-if="told.data.value" aria-label="The year so far">
      <thead>
        <tr>
          <th>Measure</th>
          <th class="num">{{ year }}</th>
          <th class="num">same days of {{ year - 1 }}</th>
          <th class="num">of {{ year - 2 }}</th>
          <th class="num">Change</th>
          <th class="bars" />
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.measure">
          <td>{{ localHead(r.label) }}</td>
          <td v-for="(age, back) in AGES" :key="age" class="num">
            <PressArea
              v-if="r[age].value !== null"
              class="figure"
              :class="{ first: !back }"
              :title="`The records behind it: ${localHead(r.label)}, ${year - back}`"
              @click="open(r.measure, localHead(r.label), back)"
            >
              {{ shownAs(r[age].value, r.unit) }}
            </PressArea>
            <template v-else>{{ shownAs(null, r.unit) }}</template>
          </td>
          <td class="num">
            {{ r.change?.words }}
          </td>
          <td class="bars">
            <i
              v-if="r.change"
              :style="{ width: width(r.change.size), [r.change.size < 0 ? 'right' : 'left']: '50%' }"
            />
          </td>
        </tr>
      </tbody>
    </PlainTable>
  </div>
</template>

<style scoped>
.sofar {
  overflow: auto;
  padding: 14px 18px;
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
.bars {
  position: relative;
  width: 22%;
}
.bars i {
  position: absolute;
  top: 30%;
  height: 40%;
  background: rgb(var(--v-theme-rain));
}
td.bars::before {
  content: '';
  position: absolute;
  left: 50%;
  top: 0;
  bottom: 0;
  border-left: var(--line);
}
table.plain td {
  padding: 4px 10px;
}
</style>
