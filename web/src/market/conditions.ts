import { FORM } from '@/shared/format'

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
const shown = (field: string, value: string) =>
  /^-?\d+(\.\d+)?$/.test(value) && !field.startsWith('year_')
    ? Number(value).toLocaleString(FORM, { maximumFractionDigits: 4 })
    : value

export function grouped(conditions: string[], labelOf: (field: string) => string | undefined): Group[] {
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
    const made = other ? [text, other] : [text]
    made.forEach((m) => used.add(m))
    out.push({
      words: other
        ? `${label} ${shown(field, value)} to ${shown(field, read(other)![2])}`
        : `${label} ${SAID[sign] ?? sign} ${shown(field, value)}`,
      made,
    })
  }
  return out
}
