<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { day } from '@/shared/format'
import { shownAs, type View } from './useView'

/** This year to the newest day against the same days of the last: every measure at once. */
const props = defineProps<{ view: View }>()
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
const width = (size: number) => `${(50 * Math.min(60, Math.abs(size))) / most.value}%`
</script>

<template>
  <div class="sheet sofar">
    <p v-if="!told.data.value" class="quiet">
      {{ told.isError.value ? 'Not counted: the view above says why.' : 'Counting …' }}
    </p>
    <h2 v-else>The year so far, to {{ day(told.data.value.end) }}</h2>
    <table v-if="told.data.value" class="plain" aria-label="The year so far">
      <thead>
        <tr>
          <th>Measure</th>
          <th class="num">{{ year }}</th>
          <th class="num">same days of {{ year - 1 }}</th>
          <th class="num">Change</th>
          <th class="bars" />
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.measure">
          <td>{{ r.label }}</td>
          <td class="num">
            <b>{{ shownAs(r.now.value, r.unit) }}</b>
          </td>
          <td class="num">{{ shownAs(r.before.value, r.unit) }}</td>
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
    </table>
  </div>
</template>

<style scoped>
.sofar {
  overflow: auto;
  padding: 14px 18px;
}
.bars {
  position: relative;
  width: 30%;
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
  border-left: 1px solid rgb(var(--v-theme-line));
}
table.plain td {
  padding: 4px 10px;
}
</style>
