import { computed, ref, watch } from 'vue'
import { useWorkup, type Candidate } from '../useWorkup'

export type Column =
  | 'likeness'
  | 'price'
  | 'list_price'
  | 'price_per_sqft'
  | 'date'
  | 'distance_miles'
  | 'days_on_market'
  | `fact:${string}`

function value(row: Candidate, column: Column): number | string | null {
  if (column.startsWith('fact:')) return (row.facts[column.slice(5)] as number | string | undefined) ?? null
  return row[column as Exclude<Column, `fact:${string}`>] ?? null
}

export interface Sorting {
  column: Column
  down: boolean
}
/** Unknown values stand last, whichever way it goes. */
function compared(a: Candidate, b: Candidate, by: Sorting): number {
  const x = value(a, by.column)
  const y = value(b, by.column)
  if (x === null || y === null) return x === y ? 0 : x === null ? 1 : -1
  return (x < y ? -1 : x > y ? 1 : 0) * (by.down ? -1 : 1)
}

/** The rows that are shown, in their order, and the one that the keys act on. */
export function useSelection() {
  const { found, choiceOf, choices, lit } = useWorkup()
  const only = ref(false)
  const sorting = ref<Sorting[]>([{ column: 'likeness', down: true }])
  const at = ref(0)

  const shown = computed<Candidate[]>(() => {
    const held = choices.value
    const here = found.data.value?.candidates ?? []
    const elsewhere = found.data.value?.kept_elsewhere ?? []
    const all = [...elsewhere.filter((c) => held[c.listing_id] === 'kept'), ...here]
    const rows = only.value ? all.filter((c) => choiceOf(c.listing_id) === 'kept') : all
    return [...rows].sort((a, b) => {
      for (const by of sorting.value) {
        const order = compared(a, b, by)
        if (order) return order
      }
      return 0
    })
  })
  watch(shown, (rows) => (at.value = Math.min(at.value, Math.max(0, rows.length - 1))))
  watch(lit, (key) => {
    const i = key ? shown.value.findIndex((c) => c.listing_id === key) : -1
    if (i >= 0) at.value = i
  })
  const current = computed<Candidate | undefined>(() => shown.value[at.value])

  function move(by: number) {
    at.value = Math.min(Math.max(0, at.value + by), Math.max(0, shown.value.length - 1))
    lit.value = current.value?.listing_id ?? null
  }
  /** By one column, the other way round when it is pressed again; `too`: after those that are sorted by already. */
  function sortBy(column: Column, too = false) {
    const held = sorting.value.find((s) => s.column === column)
    const next = { column, down: held ? !held.down : column !== 'distance_miles' }
    if (!too) sorting.value = [next]
    else if (held) sorting.value = sorting.value.map((s) => (s === held ? next : s))
    else sorting.value = [...sorting.value, next]
  }
  return { shown, at, only, current, move, sortBy, sorting }
}
