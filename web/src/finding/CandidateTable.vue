<script setup lang="ts">
import PressArea from '@/shared/ui/PressArea.vue'
import { computed } from 'vue'
import { DASH, fact, money, number, perSqft, share, sized, day, signedFact } from '@/shared/format'
import { measured } from '@/shared/localForm'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import DataTable from '@/shared/ui/DataTable.vue'
import { isText, type Sorting, type TableColumn } from '@/shared/ui/table'
import { useFinding, type Candidate } from './useFinding'
import Choose from './Choose.vue'
import { useColumns } from './useColumns'
import { valueOf } from './useSelection'

const props = defineProps<{
  rows: Candidate[]
  of: number
  here: string | null
  sorting: Sorting[]
  loading: boolean
  elsewhere: Set<string>
}>()
const emit = defineEmits<{ sort: [sorting: Sorting[]]; open: [key: string] }>()
const { home, choiceOf, reasonOf: reason, lit, way } = useFinding()
const mine = computed(() => home.value?.subject.facts ?? {})
const { shown: columns } = useColumns()

const field = (c: TableColumn) => (c.key.startsWith('fact:') ? c.key.slice(5) : '')
const half = (value: unknown) => (typeof value === 'number' && value > 0 ? `${value} half` : '')
/** The value of a home in a column. */
function shown(row: Candidate, c: TableColumn): string {
  const value = valueOf(row, c.key)
  if (value === null) return DASH
  if (c.key === 'kind') return KIND_WORDS[value] ?? String(value)
  if (c.key === 'date') return day(row.date)
  if (c.kind === 'miles') return sized(value as number, 'mi', 2)
  if (c.kind === 'share') return share(value as number)
  if (c.kind === 'per') return perSqft(value as number)
  if (c.key === 'fact:bathrooms_full') return `${value} full`
  if (c.key === 'likeness') return number(value as number)
  if (c.key === 'prices:price_per_acre') return money(measured(value as number, '$/acre'))
  if (c.kind === 'money') return money(value as number)
  return fact(value, c.kind, c.unit)
}
/** What stands under it: how much more or less than the subject, half baths, days. */
function under(row: Candidate, c: TableColumn): string {
  if (c.key === 'date')
    return row.days_on_market === null
      ? ''
      : `${row.days_on_market} ${row.days_on_market === 1 ? 'day' : 'days'}`
  if (c.key === 'prices:paid_before') return row.paid_before_on ? day(row.paid_before_on) : ''
  const name = field(c)
  if (name === 'bathrooms_full') return half(row.facts.bathrooms_half)
  const theirs = row.facts[name]
  const own = mine.value[name]
  if (typeof theirs !== 'number' || typeof own !== 'number' || theirs === own || c.kind === 'yes_no')
    return ''
  return signedFact(theirs - own, c.unit)
}
function own(c: TableColumn): string {
  const asks = home.value?.price ?? null
  if (c.key === 'price') return asks === null ? '' : money(asks)
  if (c.key === 'price_per_sqft') {
    const area = mine.value.living_area
    return asks === null || typeof area !== 'number' || !area ? '' : perSqft(asks / area)
  }
  const name = field(c)
  if (!name) return ''
  const value = mine.value[name]
  if (name === 'bathrooms_full' && value !== undefined) return `${value} full`
  return value === undefined ? '' : fact(value, c.kind, c.unit)
}
const name = (row: Candidate) => row.address || row.listing_id
const said = (row: Candidate) =>
  home.value?.named
    ? row.differences.join(', ') || 'alike in all that is recorded'
    : [row.facts.subdivision_name, row.facts.city].filter(Boolean).join(', ')
const total = computed(() => {
  const n = number(props.rows.length)
  if (props.of) return `the ${n} ${home.value?.named ? 'most alike' : 'first'} of ${number(props.of)} homes`
  return `${n} ${props.rows.length === 1 ? 'home' : 'homes'}`
})
const depends = (row: Candidate) => [mine.value, reason(row.listing_id), props.elsewhere.has(row.listing_id)]
</script>

<template>
  <DataTable
    label="Homes found"
    first="Home"
    :rows="rows"
    :key-of="(row) => row.listing_id"
    :columns="columns"
    :sorting="sorting"
    :here="here"
    :lit="lit"
    :loading="loading"
    :marked="(row) => choiceOf(row.listing_id)"
    :depends="depends"
    @sort="emit('sort', $event)"
    @open="emit('open', $event)"
    @lit="lit = $event"
  >
    <template #count>{{ total }}</template>
    <template #head>
      <tr v-if="home?.named" class="subject">
        <td class="first">
          <b class="cedar">{{ home?.address }}</b>
        </td>
        <td v-for="c in columns" :key="c.key" :class="isText(c) ? 'text' : 'num'" :title="own(c)">
          {{ own(c)
          }}<span v-if="field(c) === 'bathrooms_full'" class="under">{{ half(mine.bathrooms_half) }}</span>
        </td>
      </tr>
    </template>
    <template #first="{ row }">
      <div class="name">
        <Choose v-if="way === 'tick'" :home="row" />
        <Mark :kind="row.kind" :choice="choiceOf(row.listing_id)" />
        <div class="lines">
          <PressArea class="address" :title="`Open ${name(row)}`" @click.stop="emit('open', row.listing_id)">
            {{ name(row) }}
          </PressArea>
          <span class="under" :title="[...row.flags, said(row)].join('; ')">
            <template v-if="choiceOf(row.listing_id) === 'set_aside'">
              set aside{{ reason(row.listing_id) ? `: ${reason(row.listing_id)}` : '' }}
            </template>
            <template v-else>
              <span v-if="elsewhere.has(row.listing_id)" class="flags">not in this search; </span>
              <span v-if="row.flags.length" class="flags">{{ row.flags.join(', ') }}; </span>{{ said(row) }}
            </template>
          </span>
        </div>
        <Choose v-if="way === 'keep'" :home="row" />
      </div>
    </template>
    <template #cell="{ row, column }">
      <b v-if="column.key === 'price'">{{ shown(row, column) }}</b>
      <span v-else :title="isText(column) ? shown(row, column) : undefined">{{ shown(row, column) }}</span>
      <span class="under">{{ under(row, column) }}</span>
    </template>
    <template #empty><slot name="empty" /></template>
  </DataTable>
</template>

<style scoped>
.subject td {
  background: color-mix(in srgb, rgb(var(--v-theme-cedar)) 8%, rgb(var(--v-theme-surface)));
  height: 34px;
  padding: 0 4px;
  border-bottom: var(--line);
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.subject td.first {
  position: sticky;
  left: 0;
  z-index: 1;
  max-width: none;
  padding-left: 12px;
}
.name {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 232px;
}
.lines {
  display: flex;
  flex-direction: column;
  width: 0;
  min-width: 124px;
  flex: 1;
  line-height: 1.25;
}
.lines > * {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  text-align: left;
}
.address {
  cursor: pointer;
  /* what is pressed is taller than its words, without moving the line beneath */
  padding: 5px 0;
  margin: -5px 0;
}
.address:hover {
  text-decoration: underline;
}
:deep(tr.kept) .address {
  font-weight: 600;
}
:deep(tr.set_aside) td {
  color: rgb(var(--v-theme-quiet));
}
.under {
  display: block;
  font-size: var(--tiny);
  line-height: 1.2;
  color: rgb(var(--v-theme-quiet));
}
.flags {
  font-weight: 600;
  color: rgb(var(--v-theme-slate));
}
</style>
