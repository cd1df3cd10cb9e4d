import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, got, type Docs, type Told } from '@/shared/api/client'

import { useFields } from '@/shared/useFields'
export type Search = Docs['SearchDoc']
const NOWHERE: Partial<Search> = { radius_miles: null }

/** A look around a record, or by a search alone: nothing of it is kept until a workup is begun. */
export function useAround() {
  const route = useRoute()
  const router = useRouter()
  const home = computed(() =>
    typeof route.query.kind === 'string' && typeof route.query.key === 'string'
      ? { kind: route.query.kind as 'parcel' | 'listing', key: route.query.key }
      : null,
  )
  /** What the reader has changed; nothing yet means the search that the home proposes. */
  const search = ref<Partial<Search> | null>(null)
  const area = computed(() => (typeof route.query.area === 'string' ? [route.query.area] : []))
  watch([home, area], () => (search.value = null))
  const asked = computed(
    () => search.value ?? (home.value ? null : { ...NOWHERE, areas: area.value, home_kinds: ['detached'] }),
  )
  const around = useQuery({
    queryKey: ['around', home, asked],
    queryFn: () =>
      got(api.POST('/api/around', { body: { home: home.value, search: asked.value as Search | null } })),
    placeholderData: keepPreviousData,
  })
  const fields = useFields()
  const areas = useQuery({
    queryKey: ['areas'],
    queryFn: () => got(api.GET('/api/areas')),
    staleTime: Infinity,
  })
  const held = computed(
    () => (search.value ?? around.data.value?.search ?? asked.value ?? {}) as Partial<Search>,
  )
  const set = (to: Partial<Search>) => (search.value = { ...held.value, ...to })
  const days = computed(() => held.value.windows?.sold?.days ?? null)
  function setDays(given: number) {
    const windows = { ...held.value.windows }
    windows.sold = { on: true, days: given, only: [] }
    windows.failed = { on: true, days: given, only: [] }
    set({ windows: windows as Search['windows'] })
  }
  const band = (field: string) => held.value.criteria?.find((c) => c.field === field)
  function setBand(field: string, side: 'low' | 'high', value: number | null) {
    const others = (held.value.criteria ?? []).filter((c) => c.field !== field)
    const next = {
      words: [],
      must_be_known: false,
      low: null,
      high: null,
      ...band(field),
      field,
      [side]: value,
    }
    set({ criteria: next.low === null && next.high === null ? others : [...others, next] })
  }
  const failed = ref('')
  async function begin() {
    if (!home.value) return
    failed.value = ''
    try {
      const made = await got(api.POST('/api/workups', { body: home.value }))
      if (search.value) {
        await got(
          api.POST('/api/workups/{workup_id}/changes', {
            params: { path: { workup_id: made.workup_id } },
            body: { revision: 1, change: { change: 'set_search', search: around.data.value!.search } },
          }),
        )
      }
      await router.push({ name: 'comps', params: { id: made.workup_id } })
    } catch (error) {
      failed.value = (error as Told).message
    }
  }
  return { home, around, areas, fields, held, set, days, setDays, band, setBand, begin, failed }
}
