/** What people type for numbers, ranges, days and times of day, and the sentence where it is none of them. */
import { SHORT_MONTHS } from './format'
import { formNow, marks, reckoned } from './localForm'

/** How what is typed of a name is compared with it: "North_Ames" is found by "north ames". */
export const asTyped = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

const NUMBER = /^([+-]?)(\d[\d,]*\.?\d*|\.\d+)(k|m|mio|%)?$/

/** What else a unit may be typed in, and how many of the unit one of it is. */
const UNITS: Record<string, [RegExp, number][]> = {
  'sq ft': [
    [/sq\.?\s*(?:ft\.?|feet|foot)|sf|ft2|square\s*feet/, 1],
    [/ac(?:re)?s?/, 43560],
    [/sq\.?\s*m(?:et(?:er|re)s?)?|m2|m²|square\s*met(?:er|re)s?/, 10.763910417],
    [/ha|hectares?/, 107639.10417],
  ],
  ft: [
    [/feet|foot|ft|'/, 1],
    [/yards?|yd/, 3],
    [/m(?:et(?:er|re)s?)?/, 3.280839895],
  ],
  mi: [
    [/mi(?:les?)?/, 1],
    [/feet|foot|ft/, 1 / 5280],
    [/yards?|yd/, 1 / 1760],
    [/km|kilomet(?:er|re)s?/, 0.621371192],
    [/m(?:et(?:er|re)s?)?/, 0.000621371192],
  ],
  days: [
    [/d(?:ays?)?/, 1],
    [/w(?:eeks?)?/, 7],
    [/years?|yrs?|y/, 365],
  ],
}
const FRACTIONS: Record<string, string> = { '½': '1/2', '¼': '1/4', '¾': '3/4', '⅓': '1/3', '⅔': '2/3' }

/** "half a", "1/2", "1 1/2" and "½" as decimals; the rest as it is. */
const unbroken = (text: string) =>
  text
    .replace(/(\d?)\s*([½¼¾⅓⅔])/g, (_, whole: string, sign: string) => `${whole} ${FRACTIONS[sign]}`)
    .replace(/^half( an?| of an?)?\b/, '1/2')
    .replace(/^(?:a |one )?quarter( of)?( an?)?\b/, '1/4')
    .replace(/^three quarters( of)?( an?)?\b/, '3/4')
    .replace(/^(?:an?\s+|one\b)/, '1 ')
    .trim()
    .replace(/^(?:(\d+)\s+)?(\d+)\/(\d+)/, (all, whole, top, under) =>
      Number(under) ? String(Number(whole ?? 0) + Number(top) / Number(under)) : all,
    )

/** What is typed with the office's marks, in the usual ones: "1.520,5" → "1520.5"; null where they stand where none can. */
function usualMarks(text: string): string | null {
  const [group, point] = marks()
  if (group === ',') return text
  const between = { '.': '\\.', '\u00a0': '[ \u00a0\u202f]', '’': "[’']" }[group]
  const whole = text.replace(new RegExp(`(?<=\\d)${between}(?=\\d{3}(?!\\d))`, 'g'), '')
  if (point === '.') return whole
  return /\d\.\d/.test(whole) ? null : whole.replace(/,(?=\d)/g, '.') // 1.5: is it one and a half? Nobody knows
}

/**
 * What people type for a number: "$412,500" → 412500, "389k" → 389000, "1.2m" → 1200000, "2.5%" → 2.5, "(3000)" → −3000,
 * "1,520 sq ft" → 1520, ".2 ac" → 8712 where the field is in sq ft, "half a mile" → 0.5 in mi, "6 months" → 180 and "a year" → 365
 * in days, "141 m²" → 1518 in sq ft; null for nothing; NaN for no number.
 */
export function typedNumber(text: string, unit = ''): number | null {
  const usual = usualMarks(text.trim().toLowerCase().replace('−', '-'))
  if (usual === null) return NaN
  let said = usual
  const others = UNITS[unit.startsWith('sq ft') ? 'sq ft' : unit] ?? []
  if (others.length) said = unbroken(said)
  let times = reckoned(1, unit) // a bare number is in what the field shows
  const months = unit === 'days' ? /^([\d.]+)\s*(?:months?|mos?)$/.exec(said) : null
  if (months) {
    const n = Number(months[1])
    return Number.isNaN(n) ? NaN : Math.floor(n / 12) * 365 + Math.round((n % 12) * 30)
  }
  for (const [name, size] of others) {
    const found = new RegExp(`^(.*[\\d.)k])\\s*(?:${name.source})\\.?$`).exec(said)
    if (!found) continue
    said = found[1]!
    times = size
    break
  }
  const bare = said.replaceAll(formNow().sign.toLowerCase(), '').replace(/[$\s\u00a0]/g, '')
  if (bare === '') return null
  const bracketed = /^\((.*)\)$/.exec(bare)
  const found = NUMBER.exec(bracketed ? bracketed[1]! : bare)
  if (!found) return NaN
  const [, sign, digits, tail = ''] = found
  if (digits!.includes(',') && !/^\d{1,3}(,\d{3})+(\.\d*)?$/.test(digits!)) return NaN
  const value =
    Number(digits!.replace(/,/g, '')) * times * (tail === 'k' ? 1e3 : tail.startsWith('m') ? 1e6 : 1)
  // what was typed in another unit is no finer than it was measured
  const finest = times === 1 ? 1e6 : unit.startsWith('sq ft') ? 1 : unit === 'ft' ? 10 : 1e4
  const rounded = Math.round(value * finest) / finest
  return sign === '-' || bracketed ? -rounded : rounded
}

/**
 * A range as people type it: "1500-1900", "1,500 to 1,900", "±20%" and "+-300" around a value, "1500+", "up to 1900", "=3" and
 * "exactly 3"; null where it is no range (a single number is none).
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
  const only = /^(?:=|exactly|just|only)\s*(.+)$/i.exec(bare) ?? /^(.+?)\s*(?:exactly|only)$/i.exec(bare)
  const upTo = /^(?:up to|under|below|at most|<=?|≤)\s*(.+)$/i.exec(bare)
  const from = /^(?:from|over|above|at least|>=?|≥)\s*([^–]+)$/i.exec(bare) ?? /^(.+)\+$/.exec(bare)
  const both = /^(?:from\s+)?(.+?)\s*(?:–|—|\.\.+|…|-|\bto\b|\band\b)\s*(.+)$/i.exec(bare)
  for (const [low, high] of [
    only ? [only[1]!, only[1]!] : null,
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
      ? formNow().days === '31 Aug 2026'
        ? [slashed[3]!, slashed[2]!, slashed[1]!]
        : [slashed[3]!, slashed[1]!, slashed[2]!]
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
export const noDate = (text: string) => `“${text.trim()}” is no date: type it like ${dateLike()}.`

/** How a day is typed, as an example. */
export const dateLike = () =>
  ({ 'Aug 31, 2026': '10/31/2026', '31 Aug 2026': '31/10/2026', '2026-08-31': '2026-10-31' })[formNow().days]

/** The sentence beside a field in which no number stands. */
export const noNumber = (text: string) => `“${text.trim()}” is no number: type it like ${examples()}.`
function examples() {
  const [group, point] = marks()
  return `389${group}000, 389k or 2${point}5`
}
