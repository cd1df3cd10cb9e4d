import { shallowRef } from 'vue'
import type { Docs } from './api/client'

/** The form in which the office reads numbers, days, money and sizes. What is sent and kept stays in dollars, feet and miles. */
export type LocalForm = Docs['LocalFormDoc']
type Unit = 'sq ft' | 'acres' | 'mi' | 'ft'

/** A unit in metres: what it is called, and how many of those one of it is. */
const METRIC: Record<Unit, [word: string, size: number]> = {
  'sq ft': ['m²', 1 / 10.763910417],
  acres: ['ha', 0.40468564],
  mi: ['km', 1.609344],
  ft: ['m', 0.3048],
}
/** How a unit stands in heads and labels. */
const NAMES: [RegExp, Unit][] = [
  [/\bsq ft\b|\bsquare f(?:oo|ee)t\b/gi, 'sq ft'],
  [/\bacres?\b/gi, 'acres'],
  [/\bmi(?:les?)?\b/gi, 'mi'],
  [/\bft\b|\bfeet\b/gi, 'ft'],
]
const MARKS: Record<LocalForm['numbers'], [group: string, point: string]> = {
  '1,234.5': [',', '.'],
  '1.234,5': ['.', ','],
  '1 234,5': ['\u00a0', ','],
  '1’234.5': ['’', '.'],
}

export const USUAL: LocalForm = {
  numbers: '1,234.5',
  days: 'Aug 31, 2026',
  sign: '$',
  sign_stands: 'before',
  sizes: 'feet',
}
const KEPT = 'local form'
/** The form in which this browser read last: a page shows figures in it before the service has said who is there. */
function readLast(): LocalForm {
  try {
    const kept = { ...USUAL, ...JSON.parse(localStorage.getItem(KEPT) ?? '{}') }
    return kept.numbers in MARKS ? kept : USUAL
  } catch {
    return USUAL // what is kept there is none of ours, or nothing may be kept
  }
}
const now = shallowRef(readLast())

/** Let everything be shown in a form: at once, but for what the service words, which is asked for anew by whoever changes it. Says
 * whether it is another than before. */
export function readIn(form: LocalForm) {
  const same = (Object.keys(USUAL) as (keyof LocalForm)[]).every((k) => form[k] === now.value[k])
  if (same) return false
  now.value = form
  try {
    localStorage.setItem(KEPT, JSON.stringify(form))
  } catch {
    // it is asked for again when the page is opened the next time
  }
  return true
}
export const formNow = () => now.value
export const marks = () => MARKS[now.value.numbers]
export const isMetric = () => now.value.sizes === 'metres'

/** The unit in a field's unit or a column's head; null where there is none that differs by form. */
function unitIn(text: string): Unit | null {
  return NAMES.find(([name]) => text.search(name) >= 0)?.[1] ?? null
}

/** A head, label or unit with its units and its sign of money as they are called: "$/sq ft" → "€/m²". */
export function localHead(text: string): string {
  const metric = isMetric()
    ? NAMES.reduce((said, [name, unit]) => said.replace(name, METRIC[unit][0]), text)
    : text
  const { sign } = now.value
  return sign === '$' ? metric : metric.replaceAll('$', sign)
}

/** Whether it is so much for one of a unit: "$/sq ft", "% of the price, a sq ft". */
export const isRate = (unit: string) => /\/|\bper\b|\ban? (?:sq|acre|mi)|^\$/.test(unit)
/** How many of the shown unit one of `unit` is; of a price for one unit ("$/sq ft") the other way round. */
export function sizeOf(unit: string): number {
  const found = isMetric() ? unitIn(unit) : null
  if (!found) return 1
  const size = METRIC[found][1]
  return isRate(unit) ? 1 / size : size
}
/** A value in a unit as it is shown, and a shown one as it is reckoned with. */
export const measured = (value: number, unit: string) => value * sizeOf(unit)
export const reckoned = (value: number, unit: string) => value / sizeOf(unit)
