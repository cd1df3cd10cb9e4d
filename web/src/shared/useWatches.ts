import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import type { Rhythm } from './rhythms'

export type Watched = 'search' | 'view'
/** Saved searches and views that are looked at again and again, and what is new in them. asked: whether anybody wants to know. */
export function useWatches(asked: MaybeRefOrGetter<boolean> = true) {
  const client = useQueryClient()
  const watches = useQuery({
    queryKey: ['watches'],
    queryFn: () => got(api.GET('/api/watches')),
    enabled: () => toValue(asked),
  })
  const of = (kind: Watched, number: number) =>
    watches.data.value?.find((w) => w.kind === kind && w.number === number)
  const again = () => client.invalidateQueries({ queryKey: ['watches'] })

  /** minutes: none, to watch it no more. */
  async function watch(kind: Watched, number: number, minutes: Rhythm | null) {
    await got(api.PUT('/api/watches', { body: { kind, number, every_minutes: minutes } }))
    await again()
  }
  /** What was shown of one goes from the desk. */
  async function seen({ kind, number, told_at }: Docs['WatchDoc']) {
    // at once: what stands there until the answer comes would be looked at again
    client.setQueryData<Docs['WatchDoc'][]>(['watches'], (held) =>
      held?.map((w) => (w.kind === kind && w.number === number ? { ...w, news: null } : w)),
    )
    if (told_at) await got(api.POST('/api/watches/seen', { body: { kind, number, told_at } }))
    await again()
  }
  return { watches, of, watch, seen }
}
