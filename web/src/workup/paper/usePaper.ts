import { served } from '@/shared/servicePath'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, inject, provide, type InjectionKey } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { useDraft } from '@/shared/useDraft'
import { useWorkup } from '../useWorkup'

export type Paper = Docs['PaperDoc']

/** The pages of the report: which are on, in what order, and how each looks now. */
function paperTools() {
  const { id, open, state, send } = useWorkup()
  const known = useQuery({
    queryKey: ['layouts'],
    queryFn: () => got(api.GET('/api/layouts')),
  })
  const { value: paper, change } = useDraft(
    () => (state.value?.paper ?? { pages: [] }) as Paper,
    (next) => send({ change: 'set_paper', paper: next }),
  )
  const on = computed(() => paper.value.pages ?? [])
  const off = computed(() => Object.keys(known.data.value?.pages ?? {}).filter((p) => !on.value.includes(p)))
  const label = (page: string) => known.data.value?.pages[page] ?? page
  const layouts = computed(() => known.data.value?.layouts ?? {})
  const saved = computed(() => open.data.value?.state.paper?.pages ?? [])
  const revision = computed(() => open.data.value?.revision)
  /** What the pages say of themselves: those that stay silent and why, of which homes each speaks. */
  const told = useQuery({
    queryKey: ['pages', id, revision],
    queryFn: () =>
      got(api.GET('/api/workups/{workup_id}/pages', { params: { path: { workup_id: id.value } } })),
    placeholderData: keepPreviousData,
  })
  const silent = (page: string) => told.data.value?.silent[page]
  const whose = (page: string) => told.data.value?.whose[page]
  const speaks = (page: string) => known.data.value?.speaking.includes(page) ?? false
  /** A page as it was saved: one that is on its way to be, or to another place, keeps its picture or waits for one. */
  const numberOf = (page: string | undefined) => saved.value.indexOf(page ?? '') + 1
  const picture = (page: string | undefined, sheet = 1) => {
    const number = numberOf(page)
    return number
      ? served(`/api/workups/${id.value}/pages/${number}.svg?sheet=${sheet}&revision=${revision.value}`)
      : undefined
  }
  const set = (to: Partial<Paper>) => change((held) => ({ ...held, ...to }))

  function move(page: string, to: number) {
    const next = on.value.filter((p) => p !== page)
    next.splice(Math.max(0, Math.min(to, next.length)), 0, page)
    if (next.join() !== on.value.join()) void set({ pages: next })
  }
  function toggle(page: string) {
    const order = Object.keys(known.data.value?.pages ?? {})
    if (on.value.includes(page)) {
      if (on.value.length > 1) void set({ pages: on.value.filter((p) => p !== page) })
      return
    }
    // a page that is switched on takes its usual place among the others
    const place = on.value.findIndex((p) => order.indexOf(p) > order.indexOf(page))
    move(page, place < 0 ? on.value.length : place)
  }
  return {
    known,
    paper,
    on,
    off,
    label,
    layouts,
    picture,
    numberOf,
    revision,
    told,
    silent,
    whose,
    speaks,
    set,
    move,
    toggle,
  }
}

const KEY: InjectionKey<ReturnType<typeof paperTools>> = Symbol('paper')

/** One draft of the paper for all that stands in its room. */
export function providePaper() {
  const tools = paperTools()
  provide(KEY, tools)
  return tools
}

export function usePaper() {
  const tools = inject(KEY)
  if (!tools) throw new Error('usePaper stands inside the Paper room only')
  return tools
}
