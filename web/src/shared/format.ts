/** Numbers, money, days and sizes in the office's form, which the service's sentences and the papers have too; unknown is a dash. */
import { localHead, formNow, isMetric, isRate, marks, measured, sizeOf } from './localForm'

export const DASH = '—'

/** Whether there is a figure to show: what is unknown, and what is none, is a dash. */
export const isFigure = (value: unknown): value is number =>
  typeof value === 'number' && Number.isFinite(value)

/** A figure with at least and at most so many digits after the point, and a true minus sign. */
function digits(value: number, least: number, most: number): string {
  const key = 10 * least + most
  const format =
    made.get(key) ??
    // not in the browser's own form: 1.500 shown and read again would be one and a half
    new Intl.NumberFormat('en-US', { minimumFractionDigits: least, maximumFractionDigits: most })
  made.set(key, format)
  const text = format.format(value)
  return marked(/[1-9]/.test(text) ? text.replace('-', '−') : text.replace('-', '')) // nothing has no sign
}
/** "1,234.5" with the marks of the form. */
function marked(text: string): string {
  const [group, point] = marks()
  return group === ',' ? text : text.replace(/[,.]/g, (m) => (m === ',' ? group : point))
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

/** A rate in dollars a unit of a fact, in dollars for one of what that is shown in, rounded as rates are. */
export function rateMeasured(dollars: number, unit: string): number {
  if (sizeOf(unit) === 1) return dollars
  const shown = dollars / sizeOf(unit)
  return Number(shown.toFixed(rateDigits(Math.abs(shown))))
}

/** The same the other way, as fine as a rate is kept. */
export const rateReckoned = (shown: number, unit: string): number =>
  sizeOf(unit) === 1 ? shown : Math.round(shown * sizeOf(unit) * 1e4) / 1e4

/** Percent a month with two digits, or with those that were typed. */
export const pctWords = (value: number) => digits(value, 2, 4)

/** Dollars a square foot, or a square metre: its head names which. */
export const perSqft = (value: number | null | undefined): string =>
  isFigure(value) ? number(measured(value, '$/sq ft'), 2) : DASH

/** The same with its unit: "165.29 per sq ft". */
export const perSqftWords = (value: number | null | undefined): string =>
  `${perSqft(value)} per ${localHead('sq ft')}`

/** A size or a distance in what it is shown in, without its unit: with the digits of a fact, or so many. */
export function sized(value: number | null | undefined, unit: string, places?: number): string {
  if (!isFigure(value)) return DASH
  const shown = measured(value, unit)
  if (places !== undefined) return digits(shown, places, places)
  if (sizeOf(unit) === 1) return digits(shown, 0, 2)
  const size = Math.abs(shown)
  if (isRate(unit)) return digits(shown, 0, rateDigits(size))
  return digits(shown, 0, unit.startsWith('mi') ? 2 : size < 10 ? 1 : 0)
}
/** The same with its unit: "1,520 sq ft", "0.52 mi". */
export const sizedWords = (value: number | null | undefined, unit: string, places?: number): string =>
  `${sized(value, unit, places)} ${localHead(unit)}`
/** What a drawn place is called, as it is kept ("within 1.5 mi of 14 Ferry Lane"), with its distance as it is shown. */
export const drawnWords = (drawn = ''): string =>
  drawn.replace(/^within ([\d.]+) mi\b/, (_, miles: string) => `within ${sizedWords(Number(miles), 'mi')}`)

/** A lot in acres, or square metres: "0.21 ac", "846 m²". */
export const lotWords = (sqft: number): string =>
  isMetric() ? sizedWords(sqft, 'sq ft') : `${number(sqft / 43560, 2)} ac`
/** How far a home lies, with its unit; where that is not known, a question. */
export const far = (miles: number | null | undefined): string =>
  isFigure(miles) ? sizedWords(miles, 'mi', 2) : `? ${localHead('mi')}`

/** A share as people say it: 0.984 → "98.4 %". */
export const share = (value: number | null | undefined): string =>
  isFigure(value) ? `${number(100 * value, 1)} %` : DASH

/** Money that stands alone carries its sign: "$437,600". */
export const priced = (value: number | null | undefined): string =>
  !isFigure(value) ? DASH : `${value < 0 ? '−' : ''}${withSign(money(Math.abs(value)))}`

/** Digits of money with its sign: "$412,500", "412,500 €". */
export function withSign(text: string): string {
  const { sign, sign_stands } = formNow()
  if (sign_stands === 'after') return `${text}\u00a0${sign}`
  return `${sign}${/[\p{L}\d.]$/u.test(sign) ? '\u00a0' : ''}${text}`
}

/** From one to another: "$200,200–$240,600", "200.200–240.600 €". */
export const pricedRange = (low: number, high: number): string =>
  formNow().sign_stands === 'after' ? `${money(low)}–${priced(high)}` : `${priced(low)}–${priced(high)}`

/** What a home that is for sale is offered at. */
export function offeredAt(asks: Record<string, number>): string {
  const per = asks.list_price_per_sqft
  return `offered at ${money(asks.list_price)}${per ? `, ${perSqftWords(per)}` : ''}`
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

/** A figure as it stands in a field, to be typed over: all of its digits; of what is measured, as it is shown. */
export function inField(value: number, unit = ''): string {
  return sizeOf(unit) === 1 ? String(value).replace('.', marks()[1]) : sized(value, unit)
}

/** A difference of facts, of what is measured in what it is shown in: +170, −0.5; halves stay halves. */
export function signedFact(gap: number | null | undefined, unit = ''): string {
  if (!isFigure(gap)) return DASH
  const shown = measured(gap, unit)
  const value = sizeOf(unit) === 1 || Math.abs(shown) < 10 ? shown : Math.round(shown)
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
  return `${rounded > 0 ? '+' : rounded < 0 ? '−' : ''}${number(Math.abs(rounded), digits)} %`
}

/** Aug 31, 2026: the one form in which a day is read, as the service writes it in sentences and on paper; or the office's. */
export function day(iso: string | null | undefined): string {
  const [year, month, dayOf] = (iso ?? '').slice(0, 10).split('-').map(Number)
  if (!year || !month || !dayOf) return DASH
  const name = SHORT_MONTHS[month - 1]
  const { days } = formNow()
  if (days === '31 Aug 2026') return `${dayOf} ${name} ${year}`
  return days === '2026-08-31' ? (iso ?? '').slice(0, 10) : `${name} ${dayOf}, ${year}`
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

/** A fact of the catalogue as it is shown: years without separators, yes or no, words as they are; what is measured as its unit is shown. */
export function fact(value: unknown, kind: string, unit = ''): string {
  if (value === null || value === undefined || value === '') return DASH
  if (kind === 'date') return day(String(value))
  if (kind === 'time') return moment(String(value))
  if (typeof value !== 'number') return String(value)
  if (kind === 'money') return money(value)
  if (!isFigure(value)) return DASH
  if (kind === 'year') return String(value)
  if (kind === 'yes_no') return value ? 'yes' : 'no'
  return sized(value, unit)
}
