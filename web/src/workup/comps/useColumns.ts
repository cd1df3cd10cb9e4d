import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { useFields } from '@/shared/useFields'
import type { Column } from './useSelection'

export interface TableColumn {
  key: Column
  label: string
  kind: string
}

const OF_THE_SALE: TableColumn[] = [
  { key: 'price', label: 'Price', kind: 'money' },
  { key: 'list_price', label: 'List', kind: 'money' },
  { key: 'price_per_sqft', label: '$/sq ft', kind: 'per' },
  { key: 'distance_miles', label: 'Miles', kind: 'miles' },
  { key: 'date', label: 'Date', kind: 'date' },
  { key: 'days_on_market', label: 'Days', kind: 'number' },
  { key: 'likeness', label: 'Like', kind: 'number' },
]
const USUAL: Column[] = [
  'price',
  'price_per_sqft',
  'fact:living_area',
  'fact:bedrooms_total',
  'fact:bathrooms_full',
  'fact:garage_spaces',
  'fact:year_built',
  'distance_miles',
  'date',
  'likeness',
]
const SHORT: Record<string, string> = { 'fact:bedrooms_total': 'Beds', 'fact:bathrooms_full': 'Baths' }

const chosen = ref<Column[]>(USUAL)
let read: Promise<void> | null = null
async function readKept() {
  const { columns } = await got(api.GET('/api/columns'))
  if (columns.length) chosen.value = columns as Column[]
}
function choose(columns: Column[]) {
  chosen.value = columns
  void api.PUT('/api/columns', { body: { columns: columns === USUAL ? [] : columns } })
}

/** The columns of the table of homes: which there are, which are shown, in what order. Kept with the agent. */
export function useColumns() {
  read ??= readKept()
  const fields = useFields()
  const all = computed<TableColumn[]>(() => [
    ...OF_THE_SALE,
    ...(fields.data.value ?? [])
      .filter((f) => (f.group === 'home' && f.kind !== 'text') || f.name === 'subdivision_name')
      .map((f) => {
        const key: Column = `fact:${f.name}`
        return { key, label: SHORT[key] ?? (f.short || f.label), kind: f.kind }
      }),
  ])
  const shown = computed(() => chosen.value.flatMap((key) => all.value.find((c) => c.key === key) ?? []))
  const others = computed(() => all.value.filter((c) => !chosen.value.includes(c.key)))
  const add = (key: Column) => choose([...chosen.value, key])
  const drop = (key: Column) => {
    if (chosen.value.length > 1) choose(chosen.value.filter((k) => k !== key))
  }
  function move(key: Column, by: number) {
    const rest = chosen.value.filter((k) => k !== key)
    rest.splice(Math.max(0, Math.min(rest.length, chosen.value.indexOf(key) + by)), 0, key)
    choose(rest)
  }
  const usual = () => choose(USUAL)
  return { shown, others, add, drop, move, usual }
}
