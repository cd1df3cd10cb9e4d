<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { DASH, fact, money, number, perSqft, shortDay, signedFact } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { useWorkup, type Candidate } from '../useWorkup'
import { useColumns, type TableColumn } from './useColumns'
import type { Column, Sorting } from './useSelection'
import { useWindow } from './useWindow'

const props = defineProps<{
  rows: Candidate[]
  at: number
  sorting: Sorting[]
  loading: boolean
}>()
defineEmits<{ sort: [column: Column, too: boolean]; select: [at: number]; toggle: [key: string]; open: [] }>()
const { open, choiceOf, lit, state } = useWorkup()

const ROW = 46
const scroller = ref<HTMLElement>()
const { first, last, keepInSight } = useWindow(scroller, () => props.rows.length, ROW)
const part = computed(() => props.rows.slice(first.value, last.value))
watch(
  () => props.at,
  (at) => keepInSight(at),
)

const mine = computed(() => open.data.value?.subject.facts ?? {})
const { shown: columns } = useColumns()
const sorted = (c: TableColumn) => props.sorting.findIndex((s) => s.column === c.key)
function arrow(c: TableColumn): string {
  const i = sorted(c)
  if (i < 0) return ''
  return ` ${props.sorting[i]!.down ? '↓' : '↑'}${props.sorting.length > 1 ? i + 1 : ''}`
}

const field = (c: TableColumn) => (c.key.startsWith('fact:') ? c.key.slice(5) : '')
const half = (value: unknown) => (typeof value === 'number' && value > 0 ? `${value} half` : '')
/** The value of a home in a column. */
function shown(row: Candidate, c: TableColumn): string {
  if (c.key === 'date') return shortDay(row.date)
  if (c.kind === 'miles') return row.distance_miles.toFixed(2)
  const name = field(c)
  const value = name ? row.facts[name] : row[c.key as 'price']
  if (value === null || value === undefined) return DASH
  if (c.kind === 'per') return perSqft(value as number)
  if (name === 'bathrooms_full') return `${value} full`
  if (c.key === 'likeness') return number(value as number)
  if (c.kind === 'money') return money(value as number)
  return fact(value, c.kind)
}
/** What stands under it: how much more or less than the subject, half baths, days. */
function under(row: Candidate, c: TableColumn): string {
  if (c.key === 'date') return row.days_on_market === null ? '' : `${row.days_on_market} days`
  const name = field(c)
  if (name === 'bathrooms_full') return half(row.facts.bathrooms_half)
  const theirs = row.facts[name]
  const own = mine.value[name]
  if (typeof theirs !== 'number' || typeof own !== 'number' || theirs === own || c.kind === 'yes_no')
    return ''
  return signedFact(theirs - own)
}
function own(c: TableColumn): string {
  const name = field(c)
  if (!name) return ''
  const value = mine.value[name]
  if (name === 'bathrooms_full' && value !== undefined) return `${value} full`
  return fact(value, c.kind)
}
const isText = (c: TableColumn) => c.kind === 'word' || c.kind === 'text'
const reason = (key: string) => state.value?.decisions?.[key]?.reason ?? ''
</script>

<template>
  <div ref="scroller" class="scroller" :aria-busy="loading">
    <table v-if="rows.length" aria-label="Homes found">
      <thead>
        <tr>
          <th class="home">Home</th>
          <th v-for="c in columns" :key="c.key" :class="{ num: !isText(c) }">
            <button
              type="button"
              :aria-label="`Sort by ${c.label}`"
              title="Sort; with Shift, after what is sorted by already"
              :class="{ sorted: sorted(c) >= 0 }"
              @click="$emit('sort', c.key, $event.shiftKey)"
            >
              {{ c.label }}{{ arrow(c) }}
            </button>
          </th>
        </tr>
        <tr class="subject">
          <td class="home">
            <b class="cedar">{{ state?.address }}</b>
          </td>
          <td v-for="c in columns" :key="c.key" :class="isText(c) ? 'text' : 'num'">
            {{ own(c)
            }}<span v-if="field(c) === 'bathrooms_full'" class="under">{{ half(mine.bathrooms_half) }}</span>
          </td>
        </tr>
      </thead>
      <tbody>
        <tr v-if="first" :style="{ height: `${first * ROW}px` }" aria-hidden="true" />
        <tr
          v-for="(row, i) in part"
          :key="row.listing_id"
          :class="[choiceOf(row.listing_id), { at: first + i === at, lit: lit === row.listing_id }]"
          :aria-selected="first + i === at"
          @mouseenter="lit = row.listing_id"
          @mouseleave="lit = null"
          @click="$emit('select', first + i)"
          @dblclick="$emit('open')"
        >
          <td class="home">
            <div class="name">
              <button
                type="button"
                class="mark"
                :aria-label="`${choiceOf(row.listing_id) === 'kept' ? 'Let go' : 'Keep'} ${row.address || row.listing_id}`"
                :aria-pressed="choiceOf(row.listing_id) === 'kept'"
                @click.stop="$emit('toggle', row.listing_id)"
              >
                <Mark :kind="row.kind" :choice="choiceOf(row.listing_id)" />
              </button>
              <div class="lines">
                <span>{{ row.address || row.listing_id }}</span>
                <span class="under" :title="[...row.differences, ...row.flags].join(', ')">
                  <template v-if="choiceOf(row.listing_id) === 'set_aside'">
                    set aside{{ reason(row.listing_id) ? `: ${reason(row.listing_id)}` : '' }}
                  </template>
                  <template v-else>
                    <span v-if="row.flags.length" class="flags">{{ row.flags.join(', ') }}; </span
                    >{{ row.differences.join(', ') || 'alike in all that is recorded' }}
                  </template>
                </span>
              </div>
            </div>
          </td>
          <td v-for="c in columns" :key="c.key" :class="isText(c) ? 'text' : 'num'">
            <b v-if="c.key === 'price'">{{ shown(row, c) }}</b>
            <template v-else>{{ shown(row, c) }}</template>
            <span class="under">{{ under(row, c) }}</span>
          </td>
        </tr>
        <tr
          v-if="last < rows.length"
          :style="{ height: `${(rows.length - last) * ROW}px` }"
          aria-hidden="true"
        />
      </tbody>
    </table>
    <div v-else-if="!loading" class="pa-8"><slot name="empty" /></div>
    <p v-else class="pa-8 quiet">Looking …</p>
  </div>
</template>

<style scoped>
.scroller {
  overflow: auto;
  height: 100%;
  min-height: 0;
}
table {
  border-collapse: separate;
  border-spacing: 0;
  width: 100%;
  font-size: 13px;
}
thead {
  position: sticky;
  top: 0;
  z-index: 2;
  background: rgb(var(--v-theme-surface));
}
th {
  font-weight: 500;
  font-size: 12px;
  color: rgb(var(--v-theme-quiet));
  padding: 7px 5px 5px;
  text-align: left;
  border-bottom: 1px solid rgb(var(--v-theme-line));
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
.subject td {
  background: rgba(var(--v-theme-cedar), 0.08);
  height: 34px;
  padding: 0 5px;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
.home {
  width: 40%;
  padding-left: 12px !important;
}
tbody td {
  height: 46px;
  padding: 0 5px;
  border-bottom: 1px solid rgba(var(--v-theme-line), 0.55);
}
tbody tr.at td {
  background: rgb(var(--v-theme-mist));
}
tbody tr.at td:first-child {
  box-shadow: inset 3px 0 rgb(var(--v-theme-slate));
}
tbody tr.lit td {
  background: rgba(var(--v-theme-lamp), 0.14);
}
.set_aside {
  color: rgb(var(--v-theme-quiet));
}
.kept .lines > span:first-child {
  font-weight: 600;
}
.name {
  display: flex;
  align-items: center;
  gap: 6px;
}
.mark {
  cursor: pointer;
  flex: none;
  height: 24px;
}
.lines {
  display: flex;
  flex-direction: column;
  width: 0;
  min-width: 186px;
  flex: 1;
  line-height: 1.25;
}
.lines > span {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.under {
  display: block;
  font-size: 11px;
  line-height: 1.2;
  color: rgb(var(--v-theme-quiet));
}
.text {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.flags {
  font-weight: 600;
  color: rgb(var(--v-theme-slate));
}
</style>
