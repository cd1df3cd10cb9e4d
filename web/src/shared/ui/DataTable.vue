<script setup lang="ts" generic="Row">
import ChoiceField from './fields/ChoiceField.vue'
import PressArea from './PressArea.vue'
import { nextTick, onMounted, ref, watch } from 'vue'
import { computed } from 'vue'
import { isText, type Sorting, type TableColumn } from './table'
import { vWord } from '../words/vWord'
import { useWindow } from './useWindow'

/**
 * A long table: its head stays, its first column stays, only the rows in sight are drawn. It is sorted by several columns;
 * a press on a row opens it. The row named by `here` stays in sight when it moves.
 */
const props = defineProps<{
  label: string
  first: string
  rows: Row[]
  keyOf: (row: Row) => string
  columns: TableColumn[]
  sorting: Sorting[]
  here: string | null
  lit?: string | null
  loading?: boolean
  marked?: (row: Row) => string
  /** What else the slots of a row read, always as many things: a row is drawn anew only where one of them has changed. */
  depends?: (row: Row) => unknown[]
}>()
const emit = defineEmits<{
  sort: [sorting: Sorting[]]
  open: [key: string]
  lit: [key: string | null]
}>()
const ROW = 46
const SORTS = 'Press to sort, with Shift within what is sorted already'
const scroller = ref<HTMLElement>()
const { first: from, last: to, resting, keepInSight } = useWindow(scroller, () => props.rows.length, ROW)
const part = computed(() => props.rows.slice(from.value, to.value))
const at = computed(() => props.rows.findIndex((row) => props.keyOf(row) === props.here))
watch(at, async (now) => {
  await nextTick()
  if (now >= 0) keepInSight(now)
})
// a column that has just been added comes into sight
watch(
  () => props.columns.map((c) => c.key),
  async (now, before) => {
    const added = now.find((key) => !before.includes(key))
    if (!added || now.length !== before.length + 1) return
    await nextTick()
    await new Promise(requestAnimationFrame) // its width stands only when it has been laid out
    const box = scroller.value
    const head = box?.querySelector<HTMLElement>(`th[data-key="${CSS.escape(added)}"]`)
    const stays = box?.querySelector<HTMLElement>('th.first')?.offsetWidth ?? 0
    if (!box || !head) return
    if (head.offsetLeft + head.offsetWidth > box.scrollLeft + box.clientWidth)
      box.scrollLeft = head.offsetLeft + head.offsetWidth - box.clientWidth + 2
    else if (head.offsetLeft < box.scrollLeft + stays) box.scrollLeft = head.offsetLeft - stays
  },
)
onMounted(() => at.value >= 0 && keepInSight(at.value))
onMounted(() => at.value >= 0 && keepInSight(at.value))
// rows that are scrolled past under a resting pointer are not pointed at
const pointed = (key: string) => resting() && emit('lit', key)

const place = (key: string) => props.sorting.findIndex((s) => s.column === key)
function arrow(key: string): string {
  const i = place(key)
  if (i < 0) return ''
  return ` ${props.sorting[i]!.down ? '↓' : '↑'}${props.sorting.length > 1 ? i + 1 : ''}`
}
/** By one column, the other way round when it is pressed again; `too`: within what is sorted already. */
function sort(column: TableColumn, too: boolean) {
  const held = props.sorting.find((s) => s.column === column.key)
  const next = { column: column.key, down: held ? !held.down : !(column.rising || isText(column)) }
  if (!too) emit('sort', [next])
  else if (held)
    emit(
      'sort',
      props.sorting.map((s) => (s === held ? next : s)),
    )
  else emit('sort', [...props.sorting, next])
}
const labelOf = (key: string) => props.columns.find((c) => c.key === key)?.label ?? key
const thenBy = computed(() => props.columns.filter((c) => place(c.key) < 0))
function addSort(key: string) {
  const column = props.columns.find((c) => c.key === key)
  if (column) sort(column, true)
}
</script>

<template>
  <div class="table">
    <p v-if="rows.length" class="sorts small quiet">
      <span v-if="sorting.length">Sorted by</span>
      <span v-for="(s, i) in sorting" :key="s.column" class="by">
        <template v-if="i">, then </template>
        <b>{{ labelOf(s.column) }} {{ s.down ? '↓' : '↑' }}</b>
        <PressArea
          v-if="sorting.length > 1"
          class="away"
          :aria-label="`No longer sorted by ${labelOf(s.column)}`"
          :title="`No longer sorted by ${labelOf(s.column)}`"
          @click="
            emit(
              'sort',
              sorting.filter((x) => x !== s),
            )
          "
        >
          ×
        </PressArea>
      </span>
      <ChoiceField
        v-if="sorting.length < 4 && thenBy.length"
        model-value=""
        aria-label="Sort within that by"
        @chosen="addSort"
      >
        <option value="">then by …</option>
        <option v-for="c in thenBy" :key="c.key" :value="c.key">{{ c.label }}</option>
      </ChoiceField>
      <span class="end"><slot name="count" /></span>
    </p>
    <div ref="scroller" class="scroller" :aria-busy="loading">
      <table v-if="rows.length" :aria-label="label" :aria-rowcount="rows.length">
        <thead>
          <tr>
            <th class="first">{{ first }}</th>
            <th
              v-for="c in columns"
              :key="c.key"
              v-word="{ name: c.word ?? '', more: `${c.word ? '' : `${c.long ?? c.label}. `}${SORTS}` }"
              :data-key="c.key"
              :class="{ num: !isText(c) }"
            >
              <PressArea
                :aria-label="`Sort by ${c.label}`"
                :class="{ sorted: place(c.key) >= 0 }"
                @click="sort(c, $event.shiftKey)"
              >
                {{ c.label }}{{ arrow(c.key) }}
              </PressArea>
            </th>
          </tr>
          <slot name="head" />
        </thead>
        <tbody>
          <tr v-if="from" :style="{ height: `${from * ROW}px` }" aria-hidden="true" />
          <tr
            v-for="row in part"
            :key="keyOf(row)"
            v-memo="[
              row,
              columns,
              marked?.(row),
              keyOf(row) === here,
              keyOf(row) === lit,
              ...(depends?.(row) ?? []),
            ]"
            :class="[marked?.(row), { at: keyOf(row) === here, lit: keyOf(row) === lit }]"
            :aria-selected="keyOf(row) === here"
            @mouseenter="pointed(keyOf(row))"
            @mouseleave="emit('lit', null)"
            @click="emit('open', keyOf(row))"
          >
            <td class="first"><slot name="first" :row="row" /></td>
            <td v-for="c in columns" :key="c.key" :class="isText(c) ? 'text' : 'num'">
              <slot name="cell" :row="row" :column="c" />
            </td>
          </tr>
          <tr
            v-if="to < rows.length"
            :style="{ height: `${(rows.length - to) * ROW}px` }"
            aria-hidden="true"
          />
        </tbody>
      </table>
      <div v-else-if="!loading" class="pa-8"><slot name="empty" /></div>
      <p v-else class="pa-8 quiet">Looking …</p>
    </div>
  </div>
</template>

<style scoped>
.table {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  min-height: 0;
}
.sorts {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 3px 12px;
  border-bottom: var(--line);
}
.sorts select {
  color: inherit;
  cursor: pointer;
  max-width: 110px;
}
.by {
  white-space: nowrap;
}
.away {
  min-width: 18px;
  min-height: 18px;
  cursor: pointer;
}
.end {
  margin-left: auto;
}
.scroller {
  overflow: auto;
  min-height: 0;
  grid-row: 2;
}
table {
  border-collapse: separate;
  border-spacing: 0;
  width: 100%;
  font-size: var(--text-s);
}
thead {
  position: sticky;
  top: 0;
  z-index: 3;
  background: rgb(var(--v-theme-surface));
}
th {
  font-weight: 500;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
  padding: 7px 4px 5px;
  text-align: left;
  border-bottom: var(--line);
}
th.num {
  text-align: right;
}
th button {
  cursor: pointer;
  white-space: nowrap;
}
.sorted {
  color: rgb(var(--v-theme-slate));
  font-weight: 600;
}
.first,
:slotted(.first) {
  position: sticky;
  left: 0;
  z-index: 1;
  background: rgb(var(--v-theme-surface));
  padding-left: 12px;
}
th.first {
  width: 40%;
}
tbody tr {
  cursor: pointer;
}
tbody td {
  height: 46px;
  padding: 0 4px;
  border-bottom: 1px solid rgba(var(--v-theme-line), 0.55);
}
tbody td.first {
  padding-left: 12px;
}
tbody tr.at td {
  background: rgb(var(--v-theme-mist));
}
tbody tr.at td.first {
  box-shadow: inset 3px 0 rgb(var(--v-theme-slate));
}
tbody tr.lit td {
  background: color-mix(in srgb, rgb(var(--v-theme-lamp)) 14%, rgb(var(--v-theme-surface)));
}
.text {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
