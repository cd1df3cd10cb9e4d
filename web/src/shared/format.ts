/** Numbers, money and dates in the user's local form; unknown is an em dash. */
const whole = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 })
const two = new Intl.NumberFormat(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 2 })

export const DASH = '—'

/** Whether there is a figure to show: what is unknown, and what is none, is a dash. */
export const isFigure = (value: unknown): value is number =>
  typeof value === 'number' && Number.isFinite(value)

export function number(value: number | null | undefined, digits = 0): string {
  if (!isFigure(value)) return DASH
  return digits === 0
    ? whole.format(value)
    : value.toLocaleString(undefined, { minimumFractionDigits: digits, maximumFractionDigits: digits })
}

export function money(value: number | null | undefined): string {
  return isFigure(value) ? whole.format(Math.round(value)) : DASH
}

/** A rate in dollars a unit, as core/money writes it: whole from 100 on, cents from 1 on; typed digits are kept. */
export function rateWords(value: number | null | undefined): string {
  if (!isFigure(value)) return DASH
  const size = Math.abs(value)
  if (!size) return '0'
  const least = size >= 100 ? 0 : size >= 1 ? 2 : 4
  return value.toLocaleString(undefined, { minimumFractionDigits: least, maximumFractionDigits: 4 })
}

/** Dollars a unit that are reckoned with nowhere, such as a margin: with the digits of a rate of that size, and no more. */
export function roughRate(value: number | null | undefined): string {
  if (!isFigure(value)) return DASH
  const size = Math.abs(value)
  const digits = size >= 100 || !size ? 0 : size >= 1 ? 2 : 4
  return value.toLocaleString(undefined, { minimumFractionDigits: digits, maximumFractionDigits: digits })
}

/** Percent a month with two digits, or with those that were typed. */
export const pctWords = (value: number) =>
  value.toLocaleString(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 4 })

export function perSqft(value: number | null | undefined): string {
  return isFigure(value) ? two.format(value) : DASH
}

/** +5,741 or −6,000, with a true minus sign. */
export function signed(value: number | null | undefined): string {
  if (!isFigure(value)) return DASH
  const rounded = Math.round(value)
  return `${rounded > 0 ? '+' : rounded < 0 ? '−' : ''}${whole.format(Math.abs(rounded))}`
}

/** A difference of facts: +170, −0.5; halves stay halves. */
export function signedFact(value: number | null | undefined): string {
  if (!isFigure(value)) return DASH
  const rounded = Math.round(value * 100) / 100
  const size = Math.abs(rounded).toLocaleString(undefined, { maximumFractionDigits: 2 })
  return `${rounded > 0 ? '+' : rounded < 0 ? '−' : ''}${size}`
}

/** Conditions from the best, as they are read everywhere; a grade of the core counts from 6 down to 1. */
export const CONDITIONS = ['new', 'like new', 'well kept', 'ordinary wear', 'worn', 'damaged'] as const
export const conditionOf = (grade: number) =>
  CONDITIONS[6 - Math.min(6, Math.max(1, Math.floor(grade + 0.5)))]!

/** +5.7 %; what rounds to nothing has no sign. */
export function signedPct(value: number, digits = 1): string {
  if (!isFigure(value)) return DASH
  const rounded = Number(value.toFixed(digits))
  return `${rounded > 0 ? '+' : rounded < 0 ? '−' : ''}${Math.abs(rounded).toFixed(digits)} %`
}

export function day(iso: string | null | undefined): string {
  if (!iso) return DASH
  const date = new Date(`${iso.slice(0, 10)}T00:00:00`)
  return date.toLocaleDateString(undefined, { year: 'numeric', month: 'short', day: 'numeric' })
}

/** 10/18/26: a date in as little room as a table has. */
export function shortDay(iso: string | null | undefined): string {
  if (!iso) return DASH
  const date = new Date(`${iso.slice(0, 10)}T00:00:00`)
  return date.toLocaleDateString(undefined, { year: '2-digit', month: 'numeric', day: 'numeric' })
}

export function baths(full: unknown, half: unknown): string {
  if (typeof full !== 'number') return DASH
  return typeof half === 'number' && half > 0 ? `${full} full, ${half} half` : `${full} full`
}

/** A fact of the catalogue as it is shown: years without separators, yes or no, words as they are. */
export function fact(value: unknown, kind: string): string {
  if (value === null || value === undefined || value === '') return DASH
  if (typeof value !== 'number') return String(value)
  if (!isFigure(value)) return DASH
  if (kind === 'year') return String(value)
  if (kind === 'yes_no') return value ? 'yes' : 'no'
  return value.toLocaleString(undefined, { maximumFractionDigits: 2 })
}

const TYPED = /^([+-]?)(\d[\d,]*\.?\d*|\.\d+)(k|m|mio|%|sqft|sqfeet|sf|ft2|ac|acre|acres)?$/

/**
 * What people type for a number: "$412,500" → 412500, "389k" → 389000, "1.2m" → 1200000, "2.5%" → 2.5, "(3000)" → −3000,
 * "1,520 sq ft" → 1520, ".2 ac" → 8712 where the field is in sq ft; null for nothing; NaN for no number.
 */
export function typedNumber(text: string, unit = ''): number | null {
  const bare = text
    .toLowerCase()
    .replace(/[$\s\u00a0]/g, '')
    .replace('−', '-')
    .replace('sq.ft.', 'sqft')
  if (bare === '') return null
  const bracketed = /^\((.*)\)$/.exec(bare)
  const found = TYPED.exec(bracketed ? bracketed[1]! : bare)
  if (!found) return NaN
  const [, sign, digits, tail = ''] = found
  if (digits!.includes(',') && !/^\d{1,3}(,\d{3})+(\.\d*)?$/.test(digits!)) return NaN
  const acres = tail.startsWith('ac')
  if (acres && !unit.startsWith('sq ft')) return NaN
  const times = tail === 'k' ? 1e3 : tail.startsWith('m') ? 1e6 : acres ? 43560 : 1
  const value = Number(digits!.replace(/,/g, '')) * times
  const rounded = Math.round(value * 1e6) / 1e6
  return sign === '-' || bracketed ? -rounded : rounded
}

/** The sentence beside a field in which no number stands. */
export const noNumber = (text: string) => `“${text.trim()}” is no number: type it like 389,000, 389k or 2.5.`
