/** Numbers, money and dates in the user's local form; unknown is an em dash. */

export const DASH = '—'

/** Whether there is a figure to show: what is unknown, and what is none, is a dash. */
export const isFigure = (value: unknown): value is number =>
  typeof value === 'number' && Number.isFinite(value)

/** A figure with at least and at most so many digits after the point, and a true minus sign. */
function digits(value: number, least: number, most: number): string {
  const key = 10 * least + most
  const format =
    made.get(key) ??
    new Intl.NumberFormat(undefined, { minimumFractionDigits: least, maximumFractionDigits: most })
  made.set(key, format)
  const text = format.format(value)
  return /[1-9]/.test(text) ? text.replace('-', '−') : text.replace('-', '') // nothing has no sign
}
const made = new Map<number, Intl.NumberFormat>() // dear to make, and tables ask for thousands
/** The digits of a rate in dollars a unit, as core/money has them: none from 100 on, cents from 1 on, else four. */
const rateDigits = (size: number) => (size >= 100 || !size ? 0 : size >= 1 ? 2 : 4)

export const number = (value: number | null | undefined, places = 0): string =>
  isFigure(value) ? digits(value, places, places) : DASH

export const money = (value: number | null | undefined): string =>
  isFigure(value) ? digits(Math.round(value), 0, 0) : DASH

/** A rate in dollars a unit, as core/money writes it; typed digits are kept. */
export const rateWords = (value: number | null | undefined): string =>
  isFigure(value) ? digits(value, rateDigits(Math.abs(value)), 4) : DASH

/** Dollars a unit that nothing is reckoned with, such as a margin: with the digits of a rate of that size, and no more. */
export const roughRate = (value: number | null | undefined): string =>
  isFigure(value) ? number(value, rateDigits(Math.abs(value))) : DASH

/** Percent a month with two digits, or with those that were typed. */
export const pctWords = (value: number) => digits(value, 2, 4)

export const perSqft = (value: number | null | undefined): string => number(value, 2)

/** +5,741 or −6,000, with a true minus sign. */
export function signed(value: number | null | undefined): string {
  if (!isFigure(value)) return DASH
  const rounded = Math.round(value)
  return `${rounded > 0 ? '+' : rounded < 0 ? '−' : ''}${digits(Math.abs(rounded), 0, 0)}`
}

/** A difference of facts: +170, −0.5; halves stay halves. */
export function signedFact(value: number | null | undefined): string {
  if (!isFigure(value)) return DASH
  const rounded = Math.round(value * 100) / 100
  const size = digits(Math.abs(rounded), 0, 2)
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
  return digits(value, 0, 2)
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
