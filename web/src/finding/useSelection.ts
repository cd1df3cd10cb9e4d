import { computed, ref, watch } from 'vue'
import { inOrder, type Sorting } from '@/shared/ui/table'
import { useFields } from '@/shared/useFields'
import { useFinding, type Candidate } from './useFinding'

/** The value of a home in a column of the table: its own, one of its prices, or a fact. */
export function valueOf(row: Candidate, column: string): number | string | null {
  if (column.startsWith('fact:')) return row.facts[column.slice(5)] ?? null
  if (column.startsWith('prices:')) return row.prices?.[column.slice(7)] ?? null
  return (row[column as keyof Candidate] as number | string | null | undefined) ?? null
}

/** The rows that are shown, in their order, and the one that the keys act on: none until one is chosen. */
export function useSelection(first = 'likeness') {
  const { found, choiceOf, choices, lit } = useFinding()
  const only = ref(false)
  const sorting = ref<Sorting[]>([{ column: first, down: true }])
  const here = ref<string | null>(null)

  const fields = useFields()
  const orders = computed(
    () =>
      new Map(
        (fields.data.value ?? []).flatMap((f) => (f.words?.length ? [[`fact:${f.name}`, f.words]] : [])),
      ),
  )
  /** A value to sort by: of a word that has a place in an order, that place. */
  function ranked(row: Candidate, column: string): number | string | null {
    const value = valueOf(row, column)
    const order = orders.value.get(column)
    if (!order || typeof value !== 'string') return value
    const at = order.indexOf(value)
    return at < 0 ? null : at
  }
  const elsewhere = computed(() => new Set(found.data.value?.kept_elsewhere.map((c) => c.listing_id) ?? []))
  const shown = computed<Candidate[]>(() => {
    const held = choices.value
    const others = found.data.value?.kept_elsewhere ?? []
    const all = [
      ...others.filter((c) => held[c.listing_id] === 'kept'),
      ...(found.data.value?.candidates ?? []),
    ]
    const rows = only.value ? all.filter((c) => choiceOf(c.listing_id) === 'kept') : all
    return inOrder(rows, sorting.value, ranked)
  })
  const at = computed(() => shown.value.findIndex((c) => c.listing_id === here.value))
  const current = computed<Candidate | undefined>(() => shown.value[at.value])
  // what is chosen goes out of sight with a filter: the row that took its place is chosen then
  watch(shown, (rows, before) => {
    if (!here.value || rows.some((c) => c.listing_id === here.value)) return
    const was = before.findIndex((c) => c.listing_id === here.value)
    here.value = was < 0 ? null : (rows[Math.min(was, rows.length - 1)]?.listing_id ?? null)
  })

  function move(by: number) {
    const last = shown.value.length - 1
    const next = at.value < 0 ? (by > 0 ? 0 : last) : Math.min(Math.max(0, at.value + by), last)
    here.value = shown.value[next]?.listing_id ?? null
    lit.value = here.value
  }
  return { shown, elsewhere, here, only, current, move, sorting }
}
