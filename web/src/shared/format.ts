/** Numbers, money and days in the one form that the service's sentences and the papers have; unknown is a dash. */

/** Not the browser's own: 1.500 shown and read again would be one and a half. */
export const FORM = 'en-US'
export const DASH = '—'

/** Whether there is a figure to show: what is unknown, and what is none, is a dash. */
export const isFigure = (value: unknown): value is number =>
  typeof value === 'number' && Number.isFinite(value)

/** A figure with at least and at most so many digits after the point, and a true minus sign. */
function digits(value: number, least: number, most: number): string {
  const key = 10 * least + most
  const format =
    made.get(key) ??
    new Intl.NumberFormat(FORM, { minimumFractionDigits: least, maximumFractionDigits: most })
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

/** A share as people say it: 0.984 → "98.4 %". */
export const share = (value: number | null | undefined): string =>
  isFigure(value) ? `${number(100 * value, 1)} %` : DASH

/** Money that stands alone carries its sign: "$437,600". */
export const priced = (value: number | null | undefined): string =>
  !isFigure(value) ? DASH : value < 0 ? `−$${money(-value)}` : `$${money(value)}`

/** What a home that is for sale is offered at. */
export function offeredAt(asks: Record<string, number>): string {
  const per = asks.list_price_per_sqft
  return `offered at ${money(asks.list_price)}${per ? `, ${perSqft(per)} per sq ft` : ''}`
}

/** A count with its noun, one of it singular: "1 day", "1,200 days". */
export const counted = (n: number, one: string, many = `${one}s`): string =>
  `${number(n)} ${n === 1 ? one : many}`

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

/** Aug 31, 2026: the one form in which a day is read, as the service writes it in sentences and on paper. */
export function day(iso: string | null | undefined): string {
  const [year, month, dayOf] = (iso ?? '').slice(0, 10).split('-').map(Number)
  return year && month && dayOf ? `${SHORT_MONTHS[month - 1]} ${dayOf}, ${year}` : DASH
}
export const SHORT_MONTHS = [
  'Jan',
  'Feb',
  'Mar',
  'Apr',
  'May',
  'Jun',
  'Jul',
  'Aug',
  'Sep',
  'Oct',
  'Nov',
  'Dec',
]

/** A month or quarter of a year: "08" → Aug, "Q3" → Q3. */
const partWords = (part: string) => SHORT_MONTHS[Number(part) - 1] ?? part

/** The period of a figure: Aug 2026, Q3 2026, 2026; Aug where years lie over each other. */
export function periodWords(period: string): string {
  const [year, part] = period.split('-') as [string, string?]
  return part ? `${partWords(part)} ${year}` : partWords(year)
}

/** What stands under a period on an axis: a year where it begins, else the month or quarter alone. */
export function periodMark(period: string): string {
  const [year, part] = period.split('-') as [string, string?]
  return part && !['01', 'Q1'].includes(part) ? partWords(part) : partWords(year)
}

/** Aug 31, 2026, 2:05 AM */
export function moment(iso: string | null | undefined): string {
  if (!iso) return DASH
  const [hour, minute] = iso.slice(11, 16).split(':').map(Number) as [number, number]
  return `${day(iso)}, ${hour % 12 || 12}:${String(minute).padStart(2, '0')} ${hour < 12 ? 'AM' : 'PM'}`
}

export function baths(full: unknown, half: unknown): string {
  if (typeof full !== 'number') return DASH
  return typeof half === 'number' && half > 0 ? `${full} full, ${half} half` : `${full} full`
}

/** A fact of the catalogue as it is shown: years without separators, yes or no, words as they are. */
export function fact(value: unknown, kind: string): string {
  if (value === null || value === undefined || value === '') return DASH
  if (kind === 'date') return day(String(value))
  if (kind === 'time') return moment(String(value))
  if (typeof value !== 'number') return String(value)
  if (kind === 'money') return money(value)
  if (!isFigure(value)) return DASH
  if (kind === 'year') return String(value)
  if (kind === 'yes_no') return value ? 'yes' : 'no'
  return digits(value, 0, 2)
}
