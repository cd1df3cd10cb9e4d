import { computed, ref, watch } from 'vue'
import type { Docs } from '@/shared/api/client'
import { useFields } from '@/shared/useFields'
import { useFinding, type Search } from '../useFinding'

const ONLY_ALL = { only: [] as string[] }
/** Questions for counts that are under way at a time. */
const TOGETHER = 2

/**
 * The search as it stands, and a draft of it while a part is being changed: counts of the draft come at once, and an
 * answer to an older draft never replaces that of a newer one.
 */
export function useSearch() {
  const { way, search: held, saving, found, takeSearch, ask } = useFinding()
  const fields = useFields()
  const draft = ref<Search>()
  const live = ref<Docs['CountsDoc']>()
  let waiting: Search | null = null
  let taken = 0 // searches saved so far
  let era = 0 // an answer to what was asked in an earlier one is not shown
  let resting = 0 // the timer of a slider that has not come to rest
  watch(
    [held, saving],
    ([now]) => {
      // what is saved is older than the draft while that, or a later one, is on its way
      if (saving.value || resting) return
      if (JSON.stringify(now) === JSON.stringify(draft.value)) return
      // undone, or changed in another window: what was asked of the draft before is no answer to it
      draft.value = now
      taken += 1
      waiting = null
      forget()
    },
    { immediate: true },
  )
  watch(found.data, forget)

  let looked: Search | undefined // what was asked about last
  let [under, asked, newest] = [0, 0, 0] // questions under way; their turns: the last, and that of the answer that is shown
  /**
   * Counts of a search that is not saved. Few questions are under way at a time, so that the next is with the service while the
   * page is drawn; what is dragged past meanwhile is not asked, and a late answer is not shown.
   */
  async function look(search: Search) {
    draft.value = looked = search
    waiting = search
    if (under === TOGETHER) return
    under += 1
    while (waiting) {
      const next: Search = waiting
      const [then, turn] = [era, ++asked]
      waiting = null
      try {
        const counts = await ask.counts(next)
        if (then !== era || turn < newest) continue
        newest = turn
        live.value = counts
      } catch {
        // the part that was typed wrong says so when it is taken
      }
    }
    under -= 1
  }
  /** Counts of a draft are shown no more, nor those that are still to come. */
  function forget() {
    era += 1
    live.value = undefined
  }
  /** Counts follow a slider at once; the search is saved when it has come to rest, or with the next change. */
  function slide(search: Search) {
    void look(search)
    window.clearTimeout(resting)
    resting = window.setTimeout(() => void take(search), 350) // take() takes the timer down
  }
  async function take(search: Search): Promise<boolean> {
    window.clearTimeout(resting)
    resting = 0
    const mine = ++taken
    era += 1
    waiting = null
    const saved = takeSearch(search)
    draft.value = search
    // its counts come before all that is found; where nothing is kept, they are asked for to take it
    if (way === 'keep' && looked !== search) void look(search)
    const done = await saved
    // what was refused goes, with its counts; what was changed since stands, and further changes build on that
    if (!done && mine === taken) {
      draft.value = held.value
      forget()
    }
    return done
  }

  const copy = () => JSON.parse(JSON.stringify(draft.value)) as Search
  function withRadius(miles: number | null): Search {
    return { ...copy(), radius_miles: miles }
  }
  function withWindow(kind: string, days: number | null): Search {
    const next = copy()
    next.windows = {
      ...next.windows,
      [kind]: { ...ONLY_ALL, ...next.windows?.[kind], on: true, days, since: null, until: null },
    }
    return next
  }
  const withRange = (field: string, low: number | null, high: number | null) =>
    withCriterion(field, { low, high })
  type Criterion = NonNullable<Search['criteria']>[number]
  const criterion = (field: string) => draft.value?.criteria?.find((c) => c.field === field)
  /** The search with this field's criterion changed, or added. */
  function withCriterion(field: string, to: Partial<Criterion>): Search {
    const next = copy()
    const all = next.criteria ?? []
    const blank: Criterion = { field, words: [], must_be_known: false }
    next.criteria = all.some((c) => c.field === field)
      ? all.map((c) => (c.field === field ? { ...c, ...to } : c))
      : [...all, { ...blank, ...to }]
    return next
  }
  function withWindowOf(kind: string, to: object): Search {
    const next = copy()
    const held = next.windows?.[kind] ?? { ...ONLY_ALL, on: false, days: null }
    next.windows = { ...next.windows, [kind]: { ...held, ...to } }
    return next
  }
  function without(part: string): Search {
    const next = copy()
    if (part === 'radius_miles') next.radius_miles = null
    else if (part === 'leave_out_new_construction') next.leave_out_new_construction = false
    else if (part === 'leave_out_distressed') next.leave_out_distressed = false
    else if (part === 'parcels') Object.assign(next, { parcels: null, parcel_numbers: '' })
    else if (part === 'home_kinds') next.home_kinds = []
    else if (['areas', 'not_areas', 'shapes', 'fences'].includes(part))
      next[part as 'areas' | 'not_areas'] = []
    else if (part.startsWith('windows.'))
      next.windows = {
        ...next.windows,
        [part.slice(8)]: {
          ...ONLY_ALL,
          ...next.windows?.[part.slice(8)],
          on: true,
          days: null,
          since: null,
          until: null,
        },
      }
    else next.criteria = (next.criteria ?? []).filter((c) => c.field !== part)
    return next
  }

  const phrases = computed(() => live.value?.sentence ?? found.data.value?.sentence ?? [])
  const whatIf = computed(() => live.value?.what_if ?? found.data.value?.what_if ?? [])
  const total = (counts: Record<string, number> | null | undefined) =>
    Object.values(counts ?? {}).reduce((a, b) => a + b, 0)
  /** When nothing is found: the single parts whose absence would find something, best first. */
  const helps = computed(() =>
    whatIf.value
      .map((w) => ({
        words: `No limit on ${label(w.part).toLowerCase()}`,
        total: total(w.without),
        search: w.part,
      }))
      .filter((w) => w.total > 0)
      .sort((a, b) => b.total - a.total)
      .slice(0, 3)
      .map((w) => ({ ...w, search: without(w.search) })),
  )
  const field = (name: string) => fields.data.value?.find((f) => f.name === name)
  function label(part: string): string {
    const own: Record<string, string> = {
      radius_miles: 'Distance',
      'windows.sold': 'Sold within',
      'windows.now': 'Kinds of record',
      'windows.failed': 'Failed within',
      'windows.under_contract': 'Under contract within',
      'windows.for_sale': 'On the market within',
      'windows.deed_sale': 'Sold by deed within',
      home_kinds: 'Kinds of home',
      areas: 'In these areas',
      not_areas: 'Not in these areas',
      shapes: 'Drawn areas',
      fences: 'Fences',
      parcels: 'Parcel numbers',
      leave_out_new_construction: 'New construction',
      leave_out_distressed: 'Distressed sales',
    }
    return own[part] ?? fields.data.value?.find((f) => f.name === part)?.label ?? part
  }
  function dragRadius(miles: number, done: boolean) {
    void (done ? take(withRadius(miles)) : look(withRadius(miles)))
  }
  const setWindow = (kind: string, days: number | null) => take(withWindow(kind, days))
  return {
    draft, live, found: found.data, phrases, whatIf, helps, label, look, slide, take, dragRadius, setWindow, withRadius, withWindow, withRange, without,
    withCriterion, withWindowOf, criterion, copy, field,
  } // prettier-ignore
}

export type { Search }
export type SearchTools = ReturnType<typeof useSearch>
