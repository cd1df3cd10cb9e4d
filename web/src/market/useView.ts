import { useHomeKinds } from '@/shared/useFields'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, got, type Docs } from '@/shared/api/client'
import { DASH, isFigure, number, perSqft, share } from '@/shared/format'

export type View = Docs['ViewDoc']

export const FRESH: View = {
  measures: ['median_price', 'closings'],
  by: 'month',
  years: 5,
  places: [],
  together: false,
  whole: false,
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

/** A view as it stands in the page's address: what differs from the usual one. */
function inAddress(view: View): string {
  const own = Object.entries(view).filter(
    ([name, value]) => JSON.stringify(value) !== JSON.stringify(FRESH[name as keyof View]),
  )
  return own.length ? JSON.stringify(Object.fromEntries(own)) : ''
}
function fromAddress(asked: unknown): View {
  try {
    return { ...FRESH, ...(typeof asked === 'string' ? (JSON.parse(asked) as Partial<View>) : {}) }
  } catch {
    return { ...FRESH } // an address typed by hand: the usual view stands
  }
}

/** The view that is looked at, and what the lists in its sentence offer. */
export function useView() {
  const route = useRoute()
  const router = useRouter()
  const view = ref<View>(fromAddress(route.query.view))
  // the page's address brings the same view back: here, after a reload, on a colleague's screen
  watch(view, (now) => {
    const said = inAddress(now)
    if (said !== (route.query.view ?? ''))
      void router.push({ query: { ...route.query, view: said || undefined } })
  })
  watch(
    () => route.query.view,
    (asked) => {
      if (route.name === 'market' && (asked ?? '') !== inAddress(view.value)) view.value = fromAddress(asked)
    },
  )
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
    kinds: useHomeKinds(),
    series: useQuery({ queryKey: ['series'], queryFn: () => got(api.GET('/api/market/series')) }),
  }
  /** The last answer that came: what fails says why, and leaves chart and figures in place. */
  const told = shallowRef<Docs['ViewAnswerDoc']>()
  watch(answer.data, (now) => now && (told.value = now), { immediate: true })
  const set = (to: Partial<View>) => (view.value = { ...view.value, ...to })
  const label = (name: string) => lists.measures.data.value?.find((m) => m.name === name)?.label ?? name
  return { view, answer, told, lists, set, label }
}

/** A value in its measure's unit. */
export function shownAs(value: number | null | undefined, unit: string): string {
  if (!isFigure(value)) return DASH
  if (unit === 'share') return share(value)
  if (unit === '$/sq ft') return perSqft(value)
  if (unit === 'series') return number(value, 2)
  return number(value, unit === 'months' || unit === 'a month' ? 1 : 0)
}

export type ViewTools = ReturnType<typeof useView>

/** What a file of this view is called: its measures, place and kind of home. */
export function fileName(view: View, label: (name: string) => string, what = ''): string {
  const place = view.places?.join(' ') || (view.shapes?.length ? 'drawn area' : '')
  const words = [
    what || view.measures!.map(label).join(' and '),
    place,
    view.home_kind,
    what ? '' : `by ${view.by}`,
  ]
  return words
    .filter(Boolean)
    .join(' ')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
}
