<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { DASH, money, number, perSqft, shortDay, signed } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { useWorkup, type Candidate } from '../useWorkup'
import type { Column } from './useSelection'
import { useWindow } from './useWindow'

const props = defineProps<{
  rows: Candidate[]
  at: number
  sorting: { column: Column; down: boolean }
  loading: boolean
}>()
defineEmits<{ sort: [column: Column]; select: [at: number]; toggle: [key: string]; open: [] }>()
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
const COLUMNS: { column: Column; label: string }[] = [
  { column: 'price', label: 'Price' },
  { column: 'price_per_sqft', label: '$/sq ft' },
  { column: 'fact:living_area', label: 'Area' },
  { column: 'fact:bedrooms_total', label: 'Beds' },
  { column: 'fact:bathrooms_full', label: 'Baths' },
  { column: 'fact:garage_spaces', label: 'Garage' },
  { column: 'fact:year_built', label: 'Built' },
  { column: 'distance_miles', label: 'Miles' },
  { column: 'date', label: 'Date' },
  { column: 'likeness', label: 'Like' },
]

function gap(row: Candidate, field: string): string {
  const theirs = row.facts[field]
  const own = mine.value[field]
  if (typeof theirs !== 'number' || typeof own !== 'number' || theirs === own) return ''
  return signed(theirs - own)
}
const fact = (row: Candidate, field: string) =>
  typeof row.facts[field] === 'number' ? number(row.facts[field] as number) : DASH
const half = (value: unknown) => (typeof value === 'number' && value > 0 ? `${value} half` : '')
const reason = (key: string) => state.value?.decisions?.[key]?.reason ?? ''
</script>

<template>
  <div ref="scroller" class="scroller" :aria-busy="loading">
    <table v-if="rows.length" aria-label="Homes found">
      <thead>
        <tr>
          <th class="home">Home</th>
          <th v-for="c in COLUMNS" :key="c.column" class="num">
            <button
              type="button"
              :aria-label="`Sort by ${c.label}`"
              :class="{ sorted: sorting.column === c.column }"
              @click="$emit('sort', c.column)"
            >
              {{ c.label }}{{ sorting.column === c.column ? (sorting.down ? ' ↓' : ' ↑') : '' }}
            </button>
          </th>
        </tr>
        <tr class="subject">
          <td class="home">
            <b class="cedar">{{ state?.address }}</b>
          </td>
          <td class="num" colspan="2" />
          <td class="num">{{ mine.living_area ? number(mine.living_area as number) : DASH }}</td>
          <td class="num">{{ mine.bedrooms_total ?? DASH }}</td>
          <td class="num">
            {{ mine.bathrooms_full ?? DASH }} full<span class="under">{{ half(mine.bathrooms_half) }}</span>
          </td>
          <td class="num">{{ mine.garage_spaces ?? DASH }}</td>
          <td class="num">{{ mine.year_built ?? DASH }}</td>
          <td colspan="3" />
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
          <td class="num">
            <b>{{ money(row.price) }}</b>
          </td>
          <td class="num">{{ perSqft(row.price_per_sqft) }}</td>
          <td class="num">
            {{ fact(row, 'living_area') }}<span class="under">{{ gap(row, 'living_area') }}</span>
          </td>
          <td class="num">
            {{ fact(row, 'bedrooms_total') }}<span class="under">{{ gap(row, 'bedrooms_total') }}</span>
          </td>
          <td class="num">
            {{ fact(row, 'bathrooms_full') }} full<span class="under">{{
              half(row.facts.bathrooms_half)
            }}</span>
          </td>
          <td class="num">
            {{ fact(row, 'garage_spaces') }}<span class="under">{{ gap(row, 'garage_spaces') }}</span>
          </td>
          <td class="num">
            {{ row.facts.year_built ?? DASH }}<span class="under">{{ gap(row, 'year_built') }}</span>
          </td>
          <td class="num">{{ row.distance_miles.toFixed(2) }}</td>
          <td class="num">
            {{ shortDay(row.date) }}
            <span class="under">{{ row.days_on_market === null ? '' : `${row.days_on_market} days` }}</span>
          </td>
          <td class="num">{{ number(row.likeness) }}</td>
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
  min-width: 0;
  max-width: 186px;
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
.flags {
  font-weight: 600;
  color: rgb(var(--v-theme-slate));
}
</style>
