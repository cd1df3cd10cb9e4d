import { computed, inject, provide, ref, type InjectionKey } from 'vue'
import { noNumber, typedNumber } from '@/shared/typed'
import { rateReckoned } from '@/shared/format'
import { useWorkup } from '../../useWorkup'
import { useRateWords } from '../rates/useRateWords'

const KEY: InjectionKey<ReturnType<typeof gridTyping>> = Symbol('grid typing')

/** What is typed into the grid: sent where it can be read, told beside its field where it cannot or is refused. */
function gridTyping() {
  const { state, send, refused } = useWorkup()
  const { shownRate, unitOf } = useRateWords()
  const unread = ref('')
  /** The field at fault: a rate's name, “listing field” of an amount, “weight listing”. */
  const faulty = ref('')
  const fault = computed(() => unread.value || refused.value?.message || '')
  const faultAt = (where: string) => (faulty.value === where ? fault.value : '')

  /** The number typed; undefined where none stands there. */
  function read(text: string, where: string): number | null | undefined {
    const given = typedNumber(text)
    unread.value = Number.isNaN(given) ? noNumber(text) : ''
    if (unread.value) faulty.value = where
    return unread.value ? undefined : given
  }
  async function sent(change: Parameters<typeof send>[0], where: string) {
    faulty.value = (await send(change)) ? '' : where
  }

  async function typeRate(field: string, text: string) {
    const value = read(text, field)
    if (value === undefined || (value !== null && value === typedNumber(shownRate(field)))) return
    const given = value === null ? null : rateReckoned(value, unitOf(field))
    await sent({ change: 'set_rate', field, value: given }, field)
  }
  async function typeAmount(listing: string, field: string, text: string) {
    const amount = read(text, `${listing} ${field}`)
    if (amount !== undefined)
      await sent({ change: 'set_cell', listing_id: listing, field, amount }, `${listing} ${field}`)
  }
  async function typeWeight(listing: string, weighs: number, text: string) {
    const percent = read(text, `weight ${listing}`)
    if (percent === undefined || (percent !== null && Math.abs(percent - 100 * weighs) < 0.05)) return
    const weight = percent === null ? null : percent / 100
    await sent({ change: 'set_weight', listing_id: listing, weight }, `weight ${listing}`)
  }
  return {
    faultAt,
    typeRate,
    typeAmount,
    typeWeight,
    isTypedWeight: (listing: string) => listing in (state.value?.weights ?? {}),
    rateBack: (field: string) => send({ change: 'set_rate', field, value: null }),
    amountBack: (listing: string, field: string) =>
      send({ change: 'set_cell', listing_id: listing, field, amount: null }),
    weightBack: (listing: string) => send({ change: 'set_weight', listing_id: listing, weight: null }),
  }
}

export function provideGridTyping() {
  provide(KEY, gridTyping())
}

export function useGridTyping() {
  const typing = inject(KEY)
  if (!typing) throw new Error('The grid gives what is typed into it; this part stands outside it.')
  return typing
}
