import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, inject, provide, ref, watch, type InjectionKey, type Ref } from 'vue'
import { api, got, sooner, Told, type Docs } from '@/shared/api/client'
import type { Choice } from '@/shared/map/marks'
import { inTurn } from '@/shared/useDraft'

export type Change = Docs['ChangeRequest']['change']
export type Candidate = Docs['CandidateDoc']

/**
 * One workup: what it holds, what its search finds, what it is worth. Changes are sent one after the other, each on
 * the revision that the last one made, so that quick keys never collide; decisions show before the answer comes.
 */
function makeWorkup(id: Ref<number>) {
  const client = useQueryClient()
  const path = computed(() => ({ workup_id: id.value }))
  const open = useQuery({
    queryKey: ['workup', id],
    queryFn: () => got(api.GET('/api/workups/{workup_id}', { params: { path: path.value } })),
    placeholderData: keepPreviousData,
  })
  const search = (state: Docs['WorkupDoc'] | undefined) => ({
    queryKey: [
      'candidates',
      id.value,
      JSON.stringify([state?.search, state?.corrections, state?.effective_date, state?.place]),
    ],
    queryFn: () => got(api.GET('/api/workups/{workup_id}/candidates', { params: { path: path.value } })),
  })
  const found = useQuery(
    computed(() => ({
      ...search(open.data.value?.state),
      enabled: !!open.data.value,
      placeholderData: keepPreviousData<Docs['CandidatesDoc']>,
    })),
  )
  const worth = useQuery({
    queryKey: ['worth', id, computed(() => open.data.value?.revision)],
    queryFn: () => got(api.GET('/api/workups/{workup_id}/worth', { params: { path: path.value } })),
    // what another search finds is looked at before what that makes of the worth
    enabled: computed(() => !!open.data.value && !found.isPlaceholderData.value),
    placeholderData: keepPreviousData,
  })

  const saving = ref(false)
  const said = ref('')
  const refused = ref<Told | null>(null)
  const ahead = ref<Record<string, Choice>>({})
  const inOrder = inTurn()
  let revision: number | null = null
  /** Changes that wait for their turn or their answer. */
  const waiting = ref(0)
  /** The service does not answer, or has to be signed in to again: what waits goes out when it does. */
  const away = ref(false)
  let refreshes = 0

  /** A search that is saved: what it finds is asked for at once, and not only when the workup has been read anew. */
  function searched(taken: Docs['SearchDoc'], of: number) {
    const held = open.data.value
    if (!held) return
    const state = { ...held.state, search: taken }
    void client.prefetchQuery(search(state)) // before the page is drawn anew
    client.setQueryData<Docs['OpenDoc']>(['workup', id.value], { ...held, revision: of, state })
  }

  /** A change that was asked about, and what to do with it when the answer is yes. */
  const questioned = ref<Change | null>(null)

  async function send(change: Change): Promise<boolean> {
    questioned.value = null
    waiting.value += 1
    saving.value = true
    refused.value = null
    const turn = inOrder(async () => {
      const from = Math.max(revision ?? 0, open.data.value?.revision ?? 0)
      const ask = () =>
        got(
          api.POST('/api/workups/{workup_id}/changes', {
            params: { path: path.value },
            body: { revision: from, change },
          }),
        )
      const done = await sooner(ask, (gone) => (away.value = gone))
      revision = done.revision
      said.value = done.what
      if (change.change === 'set_search' && waiting.value === 1) searched(change.search, done.revision)
    })
    let done = true
    try {
      await turn
    } catch (error) {
      refused.value = error as Told
      if (refused.value.odd || refused.value.clash) questioned.value = change
      if (refused.value.status === 409) revision = null // changed elsewhere: what is read anew is built on
      done = false
    }
    waiting.value -= 1
    const settled = waiting.value === 0 ? settle() : undefined
    // who goes on after a change finds it in place; a refusal is told at once
    if (done) await settled
    return done
  }

  /** The same again: as it was asked about, or in the place of what somebody else has made of it meanwhile. */
  async function insist() {
    const change = questioned.value
    if (!change) return
    if (refused.value?.clash) await refresh()
    await send(refused.value?.clash ? change : ({ ...change, sure: true } as Change))
  }

  // other windows and colleagues: what they save is here within two seconds
  const elsewhere = ref('')
  const standing = useQuery({
    queryKey: ['standing revision', id],
    queryFn: () => got(api.GET('/api/workups/{workup_id}/revision', { params: { path: path.value } })),
    enabled: computed(() => !!open.data.value && !saving.value),
    refetchInterval: 1500,
    staleTime: 0,
    gcTime: 0,
    retry: false,
  })
  watch(standing.data, (newest) => {
    if (!newest || saving.value || newest.revision <= Math.max(revision ?? 0, open.data.value?.revision ?? 0))
      return
    const mine = newest.who === client.getQueryData<Docs['SessionDoc']>(['session'])?.who?.name
    elsewhere.value = `${mine ? 'In another window' : newest.who}: ${newest.what ?? 'a change taken back'}`
    said.value = ''
    void refresh()
  })
  watch(standing.error, (error) => (error as Told | null)?.status === 404 && void open.refetch())
  watch(saving, (now) => now && (elsewhere.value = ''))

  /** What is shown becomes what is saved, once nothing is on its way any more. */
  async function settle() {
    const mine = ++refreshes
    await refresh()
    if (waiting.value === 0 && mine === refreshes) {
      saving.value = false
      ahead.value = {}
    }
  }

  async function refresh() {
    await client.invalidateQueries({ queryKey: ['workup', id.value] })
    void client.invalidateQueries({ queryKey: ['workups'] })
  }

  /** Undo waits for its turn among the changes, so that it takes back the last one pressed, and says when it fails. */
  async function undo() {
    refused.value = null
    const turn = inOrder(async () => {
      const from = Math.max(revision ?? 0, open.data.value?.revision ?? 0)
      const done = await got(
        api.POST('/api/workups/{workup_id}/undo', { params: { path: path.value }, body: { revision: from } }),
      )
      revision = done.revision
      said.value = done.what ? `undone: ${done.what}` : 'nothing to undo'
    })
    try {
      await turn
    } catch (error) {
      refused.value = error as Told
      revision = null
    }
    ahead.value = {}
    await refresh()
  }

  const state = computed(() => open.data.value?.state)
  const choices = computed<Record<string, Choice>>(() => {
    const out: Record<string, Choice> = {}
    for (const [key, decision] of Object.entries(state.value?.decisions ?? {})) out[key] = decision.choice
    return { ...out, ...ahead.value }
  })
  const choiceOf = (key: string): Choice => choices.value[key] ?? 'undecided'

  function decide(listingIds: string[], choice: Choice, reason = '') {
    const next = { ...ahead.value }
    for (const key of listingIds) next[key] = choice
    ahead.value = next
    return send({ change: 'decide', listing_ids: listingIds, choice, reason })
  }

  const lit = ref<string | null>(null)
  const finding = computed(() => saving.value || open.isFetching.value || found.isFetching.value)
  /** Once what is found answers to what is saved: what is pressed meanwhile waits, and acts on that. */
  const foundNow = () =>
    new Promise<void>((resolve) => {
      if (!finding.value) return resolve()
      const stop = watch(
        finding,
        (still) => {
          if (still) return
          stop()
          resolve()
        },
        { flush: 'post' },
      )
    })
  const kept = computed(() => Object.values(choices.value).filter((c) => c === 'kept').length)
  /** True while what is shown of the worth may still be the answer to an earlier state. */
  const reckoning = computed(
    () => saving.value || open.isFetching.value || worth.isFetching.value || worth.isPlaceholderData.value,
  )
  return {
    id,
    open,
    found,
    foundNow,
    worth,
    state,
    choices,
    choiceOf,
    decide,
    send,
    undo,
    saving,
    said,
    waiting,
    away,
    elsewhere,
    refused,
    questioned,
    insist,
    lit,
    kept,
    reckoning,
  }
}

export type Workup = ReturnType<typeof makeWorkup>
const KEY: InjectionKey<Workup> = Symbol('workup')

export function provideWorkup(id: Ref<number>): Workup {
  const made = makeWorkup(id)
  provide(KEY, made)
  return made
}

export function useWorkup(): Workup {
  const held = inject(KEY)
  if (!held) throw new Error('useWorkup stands inside a workup only')
  return held
}
