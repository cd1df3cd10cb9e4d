/** What a table is made of: columns and an order of rows. */
export interface TableColumn {
  key: string
  label: string
  kind: string
  /** Of what is measured. */
  unit?: string
  /** What the label stands for, where it is short. */
  long?: string
  /** Its name in the glossary. */
  word?: string
  /** Small values first when it is sorted by. */
  rising?: boolean
}

export interface Sorting {
  column: string
  down: boolean
}

export const isText = (c: TableColumn) => c.kind === 'word' || c.kind === 'text'

type Cell = number | string | null

/** Rows in the order of several columns; unknown values stand last, whichever way it goes. */
export function inOrder<Row>(
  rows: Row[],
  sorting: Sorting[],
  valueOf: (row: Row, column: string) => Cell,
): Row[] {
  return [...rows].sort((a, b) => {
    for (const by of sorting) {
      const x = valueOf(a, by.column)
      const y = valueOf(b, by.column)
      if (x === y) continue
      if (x === null) return 1
      if (y === null) return -1
      return (x < y ? -1 : 1) * (by.down ? -1 : 1)
    }
    return 0
  })
}
