/** Numbers and money in the user's local form, days in one; unknown is an em dash. */

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
const SHORT_MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

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
  if (typeof value !== 'number') return String(value)
  if (kind === 'money') return money(value)
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

/**
 * A range as people type it: "1500-1900", "1,500 to 1,900", "±20%" and "+-300" around a value, "1500+", "up to 1900"; null
 * where it is no range (a single number is none).
 */
export function typedRange(
  text: string,
  around: number | undefined,
  unit = '',
): { low: number | null; high: number | null } | null {
  const bare = text.trim().replace(/\s+/g, ' ')
  const plusMinus = /^(?:±|\+\/?-|\+\/?−)\s*(.+)$/.exec(bare)
  const read = (part: string) => typedNumber(part, unit)
  if (plusMinus) {
    const size = read(plusMinus[1]!)
    if (size === null || Number.isNaN(size) || around === undefined) return null
    const reach = /%\s*$/.test(plusMinus[1]!) ? (around * size) / 100 : size
    return {
      low: Math.max(0, Math.round((around - reach) * 100) / 100),
      high: Math.round((around + reach) * 100) / 100,
    }
  }
  const upTo = /^(?:up to|under|below|at most|<=?|≤)\s*(.+)$/i.exec(bare)
  const from = /^(?:from|over|above|at least|>=?|≥)\s*([^–]+)$/i.exec(bare) ?? /^(.+)\+$/.exec(bare)
  const both = /^(?:from\s+)?(.+?)\s*(?:–|—|\.\.+|…|-|\bto\b|\band\b)\s*(.+)$/i.exec(bare)
  for (const [low, high] of [
    upTo ? ['', upTo[1]!] : null,
    both ? [both[1]!, both[2]!] : null,
    from ? [from[1]!, ''] : null,
  ].filter((x) => x !== null)) {
    const [a, b] = [read(low!), read(high!)]
    if (Number.isNaN(a) || Number.isNaN(b)) continue
    return { low: a, high: b }
  }
  return null
}

const MONTHS = SHORT_MONTHS.map((m) => m.toLowerCase())
/**
 * A day as people type it, as ISO: "10/31/26", "10-31-2026", "2026-10-31", "Oct 31, 2026", "31 Oct 2026"; null for nothing;
 * NaN where no such day can be read.
 */
export function typedDate(text: string): string | null | typeof NaN {
  const bare = text.trim().toLowerCase()
  if (!bare) return null
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(bare)
  const slashed = /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{2}|\d{4})$/.exec(bare)
  const named = /^([a-z]{3})[a-z]*\.? (\d{1,2}),? (\d{2}|\d{4})$/.exec(bare)
  const turned = /^(\d{1,2})\.? ([a-z]{3})[a-z]*\.?,? (\d{2}|\d{4})$/.exec(bare)
  const parts = iso
    ? [iso[1]!, iso[2]!, iso[3]!]
    : slashed
      ? [slashed[3]!, slashed[1]!, slashed[2]!]
      : named
        ? [named[3]!, String(MONTHS.indexOf(named[1]!) + 1), named[2]!]
        : turned
          ? [turned[3]!, String(MONTHS.indexOf(turned[2]!) + 1), turned[1]!]
          : null
  if (!parts) return NaN
  const [year, month, dayOf] = parts.map(Number) as [number, number, number]
  const full = year < 100 ? year + (year > 69 ? 1900 : 2000) : year
  const made = new Date(Date.UTC(full, month - 1, dayOf))
  if (made.getUTCMonth() !== month - 1 || made.getUTCDate() !== dayOf) return NaN
  return made.toISOString().slice(0, 10)
}

/** A time of day as people type it, as 18:30: "6:30 pm", "18.30", "6pm", "1830"; NaN for none. */
export function typedTime(text: string): string | null | typeof NaN {
  const bare = text.trim().toLowerCase().replace(/\./g, ':').replace(/\s+/g, '')
  if (!bare) return null
  const parts = /^(\d{1,2}):?(\d{2})?(a|p)?(:?m:?)?$/.exec(bare)
  if (!parts) return NaN
  let hour = Number(parts[1])
  const minute = Number(parts[2] ?? 0)
  if (!parts[2] && !parts[3] && !bare.includes(':') && parts[1]!.length > 2) return NaN
  if (parts[3]) {
    if (hour < 1 || hour > 12) return NaN
    hour = (hour % 12) + (parts[3] === 'p' ? 12 : 0)
  }
  if (hour > 23 || minute > 59) return NaN
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}

/** The sentence beside a field in which no day stands. */
export const noDate = (text: string) => `“${text.trim()}” is no date: type it like 10/31/2026.`

/** The sentence beside a field in which no number stands. */
export const noNumber = (text: string) => `“${text.trim()}” is no number: type it like 389,000, 389k or 2.5.`
