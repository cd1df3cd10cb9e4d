import { money } from '@/shared/format'
import { computed } from 'vue'
import { useWorkup } from './useWorkup'

export interface Above {
  key: string
  paid: number
  adjusted: number
  words: string
}
export interface Below {
  key: string
  kind: string
  price: number
  words: string
}

/** The ways to the number that have a tick on the rail. */
export const WAYS = ['model', 'median_price_per_sqft', 'assessed_value']

/** What stands on the price rail, and how dollars become places on it. */
export function useRail(width: () => number) {
  const { worth, found, state, choiceOf } = useWorkup()
  const price = computed(() => worth.data.value?.price)
  const above = computed<Above[]>(() =>
    (price.value?.comps ?? []).map((c) => ({
      key: c.listing_id,
      paid: c.close_price,
      adjusted: c.adjusted_price,
      words: `${c.address || c.listing_id}: paid ${money(c.close_price)}, adjusted ${money(c.adjusted_price)}`,
    })),
  )
  const below = computed<Below[]>(() =>
    (found.data.value?.candidates ?? [])
      .filter((c) => c.price && ['for_sale', 'under_contract', 'failed'].includes(c.kind))
      .map((c) => ({
        key: c.listing_id,
        kind: c.kind,
        price: c.price as number,
        words: `${c.address || c.listing_id}: ${c.kind.replace('_', ' ')} at ${money(c.price)}`,
      })),
  )
  /** Sales that are found and not yet decided: they stay in sight, small once something is kept. */
  const waiting = computed<Below[]>(() =>
    (found.data.value?.candidates ?? [])
      .filter((c) => c.price && c.kind === 'sold' && choiceOf(c.listing_id) === 'undecided')
      .map((c) => ({
        key: c.listing_id,
        kind: 'sold',
        price: c.price as number,
        words: `${c.address || c.listing_id}: sold for ${money(c.price)}`,
      })),
  )
  const list = computed(() => state.value?.list_price ?? null)
  const span = computed(() => {
    const core = [
      ...above.value.flatMap((c) => [c.paid, c.adjusted]),
      ...(above.value.length ? [] : waiting.value.map((c) => c.price)),
      ...(price.value?.range ? [price.value.range.low, price.value.range.high] : []),
      ...(list.value ? [list.value] : []),
    ]
    const all = core.length ? core : below.value.map((c) => c.price)
    if (!all.length) return null
    const low = Math.min(...all)
    const high = Math.max(...all)
    const pad = Math.max((high - low) * 0.08, 5000)
    return { low: low - pad, high: high + pad }
  })
  /** What the scale does not reach, by its ends: nothing is left out without a sign. */
  const ways = computed<Below[]>(() =>
    (price.value?.methods ?? [])
      .filter((m) => WAYS.includes(m.name))
      .map((m) => ({
        key: '',
        kind: 'way',
        price: m.value,
        words: `${m.label}: ${money(m.value)}`,
      })),
  )
  const beyond = computed(() => {
    const s = span.value
    const all = [...waiting.value, ...below.value, ...ways.value].sort((a, b) => a.price - b.price)
    return s
      ? { low: all.filter((c) => c.price <= s.low), high: all.filter((c) => c.price >= s.high) }
      : { low: [], high: [] }
  })
  const within = (dollars: number) => !!span.value && dollars > span.value.low && dollars < span.value.high
  const LEFT = 18
  function place(dollars: number): number {
    const s = span.value
    return s ? LEFT + ((width() - 2 * LEFT) * (dollars - s.low)) / (s.high - s.low) : 0
  }
  function dollarsAt(x: number): number {
    const s = span.value
    return s ? s.low + ((x - LEFT) / (width() - 2 * LEFT)) * (s.high - s.low) : 0
  }
  const ticks = computed(() => {
    const s = span.value
    if (!s) return []
    const room = Math.max(3, Math.floor(width() / 95))
    const step =
      [5e3, 1e4, 2.5e4, 5e4, 1e5, 2.5e5, 5e5, 1e6, 5e6].find((x) => (s.high - s.low) / x <= room) ?? 1e7
    const out = []
    for (let at = Math.ceil(s.low / step) * step; at <= s.high; at += step) out.push(at)
    return out
  })
  return { price, above, below, waiting, list, span, place, dollarsAt, ticks, beyond, within }
}
