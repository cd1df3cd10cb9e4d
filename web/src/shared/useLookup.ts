import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, type Docs, type Told } from './api/client'
import { useRested } from './useRested'

export type Hit = Docs['HitDoc']
type Kind = Hit['kind']

/** Whether a typed text means the first of the answers: it is called so, or all of them are one home or its workups. */
function isOne(found: Hit[], words: string): boolean {
  const first = found[0]
  if (!first) return false
  const isCalledSo = [first.shown, first.key].some((name) => name.toLowerCase() === words.toLowerCase())
  const home = (found.find((h) => h.kind === 'parcel' || h.kind === 'listing') ?? first).shown
  const isOfHome = (h: Hit) => h.shown === home || (h.kind === 'workup' && home.startsWith(`${h.shown},`))
  return isCalledSo || found.every(isOfHome)
}

/** Whether a home has all the numbers that were typed: of the house, of the unit. */
function isSoNumbered(hit: Hit | undefined, words: string): boolean {
  const numbers = (text = '') => Array.from(text.matchAll(/\d+/g), ([number]) => number)
  return numbers(words).every((typed) => numbers(hit?.shown).includes(typed))
}

/** What a typed text may mean, of the kinds wanted, which of the answers is chosen, and what opening one does. */
export function useLookup(text: Ref<string>, kinds: Kind[] = ['workup', 'parcel', 'listing', 'area']) {
  const router = useRouter()
  const client = useQueryClient()
  const { rested: asked, rest } = useRested(text)
  const failed = ref('')
  const question = (words: string) => ({
    queryKey: ['lookup', words],
    queryFn: () => got(api.GET('/api/lookup', { params: { query: { text: words } } })),
  })
  const query = useQuery({
    queryKey: ['lookup', asked],
    queryFn: () => question(asked.value).queryFn(),
    enabled: computed(() => asked.value.length > 1),
    placeholderData: keepPreviousData,
  })
  const wanted = (all: Hit[] = []) => all.filter((h) => kinds.includes(h.kind))
  const told = computed(() => (asked.value.length > 1 ? query.data.value : undefined))
  const hits = computed(() => wanted(told.value?.hits))
  const nearest = computed(() => wanted(told.value?.nearest))
  const offered = computed(() => (hits.value.length ? hits.value : nearest.value))
  const nothing = computed(
    () =>
      asked.value.length > 1 &&
      asked.value === text.value.trim() &&
      query.isSuccess.value &&
      !hits.value.length,
  )
  /** Which of those offered is chosen, from 0: a new list begins with its first; none (-1) where that has another number. */
  const at = ref(0)
  const beginning = () => (hits.value.length || isSoNumbered(nearest.value[0], asked.value) ? 0 : -1)
  watch(offered, () => (at.value = beginning()))
  const move = (by: number) => (at.value = Math.max(0, Math.min(at.value + by, offered.value.length - 1)))

  /**
   * The answer that Enter takes: of what is offered for all that is typed by now. The key is often pressed before that
   * is there, and what is listed still is for the first letters, which may be another home. What was not seen yet is
   * taken where one home alone can be meant; else it is listed, and the next Enter takes it. Null where nothing is taken,
   * more was typed meanwhile, or nobody answers.
   */
  async function taken(): Promise<Hit | null> {
    const chosen = offered.value[at.value]
    const isAnswered = query.isSuccess.value && !query.isPlaceholderData.value
    const seen = isAnswered && asked.value === text.value.trim()
    const words = rest()
    if (words.length < 2) return null
    failed.value = ''
    if (seen) return chosen ?? null
    try {
      const found = wanted((await client.ensureQueryData(question(words))).hits)
      return words === text.value.trim() && isOne(found, words) ? found[0]! : null
    } catch (error) {
      failed.value = (error as Told).message
      return null
    }
  }

  async function open(hit: Hit) {
    failed.value = ''
    try {
      if (hit.kind === 'workup') {
        await router.push({ name: 'comps', params: { id: hit.key } })
        return
      }
      if (hit.kind === 'area') {
        const view = { measures: ['median_price', 'months_of_supply'], places: [hit.key] }
        await router.push({ name: 'market', query: { view: JSON.stringify(view) } })
        return
      }
      const made = await got(api.POST('/api/workups', { body: { kind: hit.kind, key: hit.key } }))
      await router.push({ name: 'home', params: { id: made.workup_id } })
    } catch (error) {
      failed.value = (error as Told).message
    }
  }
  return { hits, nearest, offered, nothing, at, move, taken, failed, open }
}
