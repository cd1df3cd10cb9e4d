import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, got, type Docs } from '@/shared/api/client'
import { DASH, isFigure, number } from '@/shared/format'

export type View = Docs['ViewDoc']

export const FRESH: View = {
  measures: ['median_price', 'closings'],
  by: 'month',
  years: 5,
  places: [],
  home_kind: 'detached',
  where: [],
  smooth: 1,
  overlay: false,
  series: '',
  shapes: [],
  drawn: '',
  split: '',
  deeds: false,
}

/** The view that is looked at, and what the lists in its sentence offer. */
export function useView() {
  const route = useRoute()
  const view = ref<View>({ ...FRESH })
  const asked = route.query.view
  if (typeof asked === 'string') {
    try {
      view.value = { ...FRESH, ...(JSON.parse(asked) as Partial<View>) }
    } catch {
      // an address typed by hand: the usual view stands
    }
  }
  const answer = useQuery({
    queryKey: ['market-view', view],
    queryFn: () => got(api.POST('/api/market/view', { body: view.value })),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const lists = {
    measures: useQuery({
      queryKey: ['measures'],
      queryFn: () => got(api.GET('/api/measures')),
      staleTime: Infinity,
    }),
    areas: useQuery({ queryKey: ['areas'], queryFn: () => got(api.GET('/api/areas')), staleTime: Infinity }),
    kinds: useQuery({
      queryKey: ['home-kinds'],
      queryFn: () => got(api.GET('/api/home-kinds')),
      staleTime: Infinity,
    }),
    series: useQuery({ queryKey: ['series'], queryFn: () => got(api.GET('/api/market/series')) }),
  }
  const set = (to: Partial<View>) => (view.value = { ...view.value, ...to })
  const label = (name: string) => lists.measures.data.value?.find((m) => m.name === name)?.label ?? name
  const places = computed(() => (lists.areas.data.value ?? []).map((a) => ({ name: a.name!, kind: a.kind! })))
  return { view, answer, lists, set, label, places }
}

/** A value in its measure's unit. */
export function shownAs(value: number | null | undefined, unit: string): string {
  if (!isFigure(value)) return DASH
  if (unit === 'share') return `${(100 * value).toFixed(1)} %`
  if (unit === 'series' || unit === '$/sq ft') return number(value, 2)
  return number(value, unit === 'months' || unit === 'a month' ? 1 : 0)
}

export type ViewTools = ReturnType<typeof useView>
