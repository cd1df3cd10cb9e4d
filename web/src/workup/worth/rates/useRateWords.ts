import { computed } from 'vue'
import { number, pctWords, rateMeasured, rateWords, roughRate } from '@/shared/format'
import { useFields } from '@/shared/useFields'
import { useWorkup } from '../../useWorkup'

/** What the grid says of a rate: its figure, how strong its evidence is, and whether it is typed. */
export function useRateWords() {
  const { worth, state } = useWorkup()
  const fields = useFields()
  const unitOf = (field: string) => fields.data.value?.find((f) => f.name === field)?.unit ?? ''
  const price = computed(() => worth.data.value?.price)
  const rates = computed(() => Object.fromEntries((price.value?.rates ?? []).map((r) => [r.field, r])))

  /** Length of the bar of evidence: full where the rate is five times its error, none where it is weak. */
  function strength(field: string): number {
    const r = rates.value[field]
    if (!r || !r.standard_error || r.source === 'house rule') return r?.source === 'typed' ? 0 : 6
    return Math.round(Math.min(1, Math.abs(r.dollars) / (5 * r.standard_error)) * 52)
  }
  function evidence(field: string): string {
    if (field === 'concessions') return ''
    if (field === 'market_change') {
      const m = price.value?.market_change
      if (!m) return ''
      return m.low === m.high
        ? 'typed'
        : `${number(m.sales)} sales, ${pctWords(m.low)} to ${pctWords(m.high)}`
    }
    const r = rates.value[field]
    if (!r) return ''
    if (r.source === 'typed') return 'typed'
    if (field === 'location') return `${number(r.sales)} sales`
    if (r.source === 'house rule') return 'house rule'
    if (r.source === 'none') return `${number(r.sales)} sales, no line`
    return `${number(r.sales)} sales, ± ${roughRate(perUnit(field, 1.28 * r.standard_error))}${r.weak ? ', weak' : ''}`
  }
  /** A rate of what is measured, in what that is shown in. */
  const perUnit = (field: string, dollars: number | undefined) =>
    dollars === undefined ? undefined : rateMeasured(dollars, unitOf(field))
  const typedRate = (field: string) => field in (state.value?.rates ?? {})
  const shownRate = (field: string) =>
    field === 'market_change'
      ? pctWords(price.value?.market_change.pct_per_month ?? 0)
      : rateWords(perUnit(field, rates.value[field]?.dollars))
  return { rates, strength, evidence, typedRate, shownRate, unitOf }
}
