import { fact } from '@/shared/format'
import { localHead, isMetric, sizeOf } from '@/shared/localForm'

/** Conditions of a view as they are said; two ends of one field are one condition, "between". */
export interface Group {
  words: string
  made: string[]
}

const SAID: Record<string, string> = {
  '>=': 'at least',
  '<=': 'at most',
  '>': 'above',
  '<': 'below',
  '=': 'is',
  '!=': 'is not',
  in: 'one of',
  like: 'like',
}
const read = (text: string) =>
  /^(\S+) (\S+) (.*)$/.exec(text)?.slice(1) as [string, string, string] | undefined
const shown = (field: string, value: string, unit: string) =>
  /^-?\d+(\.\d+)?$/.test(value) && !field.startsWith('year_') ? fact(Number(value), 'number', unit) : value

/** unitOf: a field's unit, in which its ends stand in a condition. */
export function grouped(
  conditions: string[],
  labelOf: (field: string) => string | undefined,
  unitOf: (field: string) => string,
): Group[] {
  const out: Group[] = []
  const used = new Set<string>()
  for (const text of conditions) {
    if (used.has(text)) continue
    const parts = read(text)
    if (!parts) {
      out.push({ words: text, made: [text] })
      continue
    }
    const [field, sign, value] = parts
    const other =
      sign === '>=' ? conditions.find((c) => !used.has(c) && c.startsWith(`${field} <= `)) : undefined
    const label = labelOf(field) ?? field
    const unit = unitOf(field)
    const tail = isMetric() && sizeOf(unit) !== 1 ? ` ${localHead(unit)}` : ''
    const made = other ? [text, other] : [text]
    made.forEach((m) => used.add(m))
    out.push({
      words: other
        ? `${label} ${shown(field, value, unit)} to ${shown(field, read(other)![2], unit)}${tail}`
        : `${label} ${SAID[sign] ?? sign} ${shown(field, value, unit)}${tail}`,
      made,
    })
  }
  return out
}
