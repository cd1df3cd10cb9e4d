<script setup lang="ts">
import { periodWords } from '@/shared/format'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { shownAs } from './useView'
import { localHead } from '@/shared/localForm'

/** The view's figures by period, newest first; each opens to its records. */
const props = defineProps<{ told: Docs['ViewAnswerDoc']; at: number | null }>()
const emit = defineEmits<{ at: [index: number | null]; open: [period: number, line: number] }>()
const backwards = computed(() => props.told.periods.map((p, i) => ({ ...p, i })).reverse())
const few = (line: Docs['ViewLineDoc'], i: number) =>
  line.unit && line.measure !== 'series' && line.points[i]?.value != null && line.points[i]!.n < 5
</script>

<template>
  <PlainTable aria-label="Market figures by period">
    <thead>
      <tr>
        <th>Period</th>
        <th v-for="l in told.lines" :key="l.name" class="num wrap">{{ localHead(l.name || l.label) }}</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="p in backwards"
        :key="p.period"
        :class="{ at: at === p.i }"
        @mouseenter="emit('at', p.i)"
        @mouseleave="emit('at', null)"
      >
        <td class="when">
          {{ periodWords(p.period) }}<span v-if="!p.finished" class="quiet small"> so far</span>
        </td>
        <td v-for="(l, k) in told.lines" :key="l.name" class="num">
          <PressArea
            v-if="l.measure !== 'series' && l.points[p.i]?.value != null"
            class="figure"
            :title="`The records behind it: ${localHead(l.name || l.label)}, ${periodWords(p.period)}`"
            @click="emit('open', p.i, k)"
          >
            {{ shownAs(l.points[p.i]?.value, l.unit) }}
          </PressArea>
          <template v-else>{{ shownAs(l.points[p.i]?.value, l.unit) }}</template>
          <span v-if="few(l, p.i)" class="quiet small" :title="`from only ${l.points[p.i]!.n}`"
            >({{ l.points[p.i]!.n }})</span
          >
        </td>
      </tr>
    </tbody>
  </PlainTable>
</template>

<style scoped>
thead th {
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
}
.wrap {
  white-space: normal;
  max-width: 110px;
}
th,
td {
  padding-left: 6px;
  padding-right: 6px;
}
.when {
  white-space: nowrap;
}
.at td {
  background: rgba(var(--v-theme-lamp), 0.16);
}
.figure {
  cursor: pointer;
}
.figure:hover {
  text-decoration: underline;
}
</style>
