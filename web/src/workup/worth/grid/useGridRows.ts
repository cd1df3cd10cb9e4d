import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { conditionOf, DASH, fact, number, signedFact, signedPct } from '@/shared/format'
import { useFields } from '@/shared/useFields'
import { useWorkup } from '../../useWorkup'

export type Cell = Docs['LineDoc']
export type Row = { field: string; label: string; cells: Cell[] }

/** Before the name of an own field whose words have an order: the line of their ranks. */
const RANK = 'rank_of_'
const NO_FACT = ['market_change', 'location']

/** Concessions and what no field holds are amounts, not rates. */
export const hasRate = (field: string) =>
  field !== 'concessions' && field !== 'improvements' && !field.startsWith('own: ')

/** The home's own fact is unknown while a comp's is known: a step of it is left out, and is asked for. */
export const isUnknown = (row: Row) =>
  hasRate(row.field) &&
  !NO_FACT.includes(row.field) &&
  row.cells.every((c) => c.mine === null) &&
  row.cells.some((c) => c.theirs !== null)

/** The lines of the grid that say something, and what their cells say in words. */
export function useGridRows() {
  const { worth, state, open } = useWorkup()
  const price = computed(() => worth.data.value?.price)
  const comps = computed(() => price.value?.comps ?? [])
  const grid = computed(() => worth.data.value?.grid ?? [])
  const mine = computed(() => open.data.value?.subject.facts ?? {})
  const fields = useFields()
  const fieldOf = (field: string) => fields.data.value?.find((f) => f.name === field)
  const kindOf = (field: string) => fieldOf(field)?.kind ?? 'number'
  const unitOf = (field: string) => fieldOf(field)?.unit ?? ''

  const rows = computed<Row[]>(() =>
    (grid.value[0]?.lines ?? [])
      .map((line, i) => ({
        field: line.field,
        label: line.label,
        cells: grid.value.map((column) => column.lines[i]),
      }))
      .filter(
        (row) =>
          row.field === 'market_change' ||
          !hasRate(row.field) ||
          row.field in (state.value?.rates ?? {}) ||
          row.cells.some((cell) => cell.overridden || (cell.theirs !== null && cell.theirs !== cell.mine)),
      ),
  )

  /** The home's own fact in a row. */
  function own({ field, cells }: Row): string {
    if (field.startsWith(RANK)) return String(mine.value[field.slice(RANK.length)] ?? DASH)
    const value = mine.value[field] ?? cells.find((cell) => cell.mine !== null)?.mine
    if (typeof value !== 'number' || NO_FACT.includes(field))
      return ['concessions', ...NO_FACT].includes(field) ? '' : DASH
    if (field === 'condition_grade') return conditionOf(value)
    return fact(value, kindOf(field), unitOf(field))
  }

  /** The comp less the home, in the feature's unit; days for market change. */
  function difference(cell: Cell): string {
    if (cell.field === 'market_change') return `${number(cell.theirs)} days`
    if (cell.field === 'concessions' || cell.theirs === null || cell.mine === null) return ''
    if (cell.field === 'location') return signedPct(cell.theirs)
    if (cell.theirs === cell.mine) return 'alike'
    if (cell.field === 'condition_grade') return conditionOf(cell.theirs)
    if (kindOf(cell.field) === 'yes_no') return fact(cell.theirs, 'yes_no')
    return signedFact(cell.theirs - cell.mine, unitOf(cell.field))
  }

  return { comps, grid, rows, own, difference }
}
