import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, got, Told, type Docs } from '@/shared/api/client'
import type { Choice } from '@/shared/map/marks'
import type { Finding, Search } from '@/finding/useFinding'
import { inTurn } from '@/shared/useDraft'
import { fromHash, toHash } from './address'

export type LookAsk = Docs['LookAsk']
type Named = { kind: 'parcel' | 'listing'; key: string }

/**
 * A look around a home, a place, or by a search alone. All of it stands in the page's address: what it is taken from in the
 * question, the search and what is ticked behind the #, which no server is sent. Nothing is kept.
 */
export function useLook() {
  const route = useRoute()
  const router = useRouter()
  const mine = computed(() => route.name === 'around')
  const home = computed<Named | null>(() => {
    const { kind, key } = route.query
    return (kind === 'parcel' || kind === 'listing') && typeof key === 'string' ? { kind, key } : null
  })
  const place = computed<number[] | null>(() => {
    const [lat, lon] = String(route.query.at ?? '')
      .split(',')
      .map(Number)
    return lat !== undefined && lon !== undefined && Number.isFinite(lat) && Number.isFinite(lon)
      ? [lon, lat]
      : null
  })
  const area = computed(() => (typeof route.query.area === 'string' ? route.query.area : ''))
  const inAddress = computed(() => fromHash(route.hash))
  /** What is asked for by the address; null leaves it to the home. */
  const asked = computed<Search | null>(() => {
    if (inAddress.value.search) return inAddress.value.search
    if (home.value) return null
    const first = { home_kinds: ['detached'], areas: area.value ? [area.value] : [] }
    return { ...first, radius_miles: place.value ? 0.5 : null } as unknown as Search
  })
  const ticked = ref<string[]>(inAddress.value.ticked)
  let writing = 0 // ticks on their way into the address: what it says of an earlier one takes none back
  watch(
    () => route.hash,
    () => mine.value && !writing && (ticked.value = inAddress.value.ticked),
  )
  const ask = (more: Partial<LookAsk> = {}): LookAsk => ({
    home: home.value,
    place: home.value ? null : place.value,
    search: asked.value,
    ticked: [],
    ...more,
  })
  /** Homes that the search finds; ticked ones that it does not find are asked for by their numbers. */
  const there = ref<Set<string> | null>(null)
  const strays = computed(() => (there.value ? ticked.value.filter((k) => !there.value!.has(k)).sort() : []))
  const from = computed(() => [home.value, place.value, asked.value])
  const found = useQuery({
    queryKey: ['look', from, strays],
    queryFn: () => got(api.POST('/api/around', { body: ask({ ticked: ticked.value }) })),
    placeholderData: keepPreviousData,
    enabled: mine,
    retry: false,
  })
  watch(found.data, (now) => (there.value = now ? new Set(now.candidates.map((c) => c.listing_id)) : null), {
    immediate: true,
  })
  const search = computed(
    () =>
      inAddress.value.search ??
      (found.isPlaceholderData.value ? undefined : found.data.value?.search) ??
      asked.value ??
      undefined,
  )
  const refused = ref<Told | null>(null)
  const inOrder = inTurn()
  const waiting = ref(0)
  /** Changes go one after the other, as they were made: an answer that comes late puts no older search in the address. */
  async function takeSearch(next: Search): Promise<boolean> {
    refused.value = null
    waiting.value += 1
    try {
      await inOrder(async () => {
        await got(api.POST('/api/around/counts', { body: ask({ search: next }) }))
        await router.push({ query: route.query, hash: toHash({ search: next, ticked: ticked.value }) })
      })
      return true
    } catch (error) {
      refused.value = error as Told
      return false
    } finally {
      waiting.value -= 1
    }
  }
  function tick(keys: string[], choice: Choice) {
    const others = ticked.value.filter((k) => !keys.includes(k))
    ticked.value = choice === 'kept' ? [...others, ...keys] : others
    writing += 1
    void router
      .replace({
        query: route.query,
        hash: toHash({ search: inAddress.value.search, ticked: ticked.value }),
      })
      .finally(() => (writing -= 1))
    return Promise.resolve(true)
  }
  const choices = computed<Record<string, Choice>>(() =>
    Object.fromEntries(ticked.value.map((k) => [k, 'kept' as Choice])),
  )
  const finding: Finding = {
    way: 'tick',
    stamp: computed(() => ['look', ...from.value]),
    home: computed(() => {
      const of = found.data.value
      return (
        of && {
          subject: of.subject,
          address: of.title,
          picture: of.picture ?? null,
          named: !!home.value,
          here: (!!home.value && of.subject.placed !== false) || !!place.value,
          price: of.asks.list_price ?? null,
          until: of.effective_date,
        }
      )
    }),
    search,
    takeSearch,
    found,
    saving: computed(() => waiting.value > 0),
    refused,
    choices,
    choiceOf: (key) => choices.value[key] ?? 'undecided',
    reasonOf: () => '',
    decide: (keys, choice) => tick(keys, choice),
    kept: computed(() => ticked.value.length),
    lit: ref(null),
    conditionOf: () => undefined,
    rate: () => undefined,
    ask: {
      counts: (next) => got(api.POST('/api/around/counts', { body: ask({ search: next }) })),
      spread: (field) =>
        got(
          api.POST('/api/around/spread', {
            params: { query: { field } },
            body: ask({ search: search.value }),
          }),
        ),
      proposals: () => got(api.POST('/api/around/proposals', { body: ask({ search: search.value }) })),
      summaries: () =>
        got(api.POST('/api/around/summaries', { body: ask({ search: search.value, ticked: ticked.value }) })),
      likeness: (listing_id) =>
        got(api.POST('/api/around/likeness/{listing_id}', { params: { path: { listing_id } }, body: ask() })),
      record: (listing_id) =>
        got(
          api.GET('/api/listings/{listing_id}', {
            params: { path: { listing_id }, query: { until: found.data.value?.effective_date } },
          }),
        ),
      saveSearch: (name) =>
        got(api.POST('/api/searches', { body: { name, look: ask({ search: search.value }) } })),
      carry: (search_id) =>
        got(api.POST('/api/searches/{search_id}/around', { params: { path: { search_id } }, body: ask() })),
    },
  }
  /** The look as it stands, for what goes on from it. */
  const whole = (more: Partial<LookAsk> = {}) => ask({ search: search.value, ticked: ticked.value, ...more })
  return { finding, found, home, place, search, ticked, whole }
}
