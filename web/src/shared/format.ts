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
  const least = size >= 100 ? 0 : size >= 1 ? 2 : 4
  return value.toLocaleString(undefined, { minimumFractionDigits: least, maximumFractionDigits: 4 })
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

/** What people type for money or a count: "$412,500" → 412500; null for nothing; NaN for no number. */
export function typedNumber(text: string): number | null {
  const bare = text.replace(/[$,\s]/g, '').replace('−', '-')
  return bare === '' ? null : Number(bare)
}
