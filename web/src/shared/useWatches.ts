import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { api, got, type Docs } from '@/shared/api/client'

export type Watched = 'search' | 'view'
type Rhythm = 60 | 1440 | 10080
export const RHYTHMS: Record<string, string> = { 60: 'every hour', 1440: 'every day', 10080: 'every week' }

/** Saved searches and views that are looked at again and again, and what is new in them. */
export function useWatches() {
  const client = useQueryClient()
  const watches = useQuery({ queryKey: ['watches'], queryFn: () => got(api.GET('/api/watches')) })
  const of = (kind: Watched, number: number) =>
    watches.data.value?.find((w) => w.kind === kind && w.number === number)
  const again = () => client.invalidateQueries({ queryKey: ['watches'] })

  /** minutes: none, to watch it no more. */
  async function watch(kind: Watched, number: number, minutes: number | null) {
    await got(api.PUT('/api/watches', { body: { kind, number, every_minutes: minutes as Rhythm | null } }))
    await again()
  }
  async function seen(one: Docs['WatchDoc']) {
    await got(api.POST('/api/watches/seen', { body: { kind: one.kind, number: one.number } }))
    await again()
  }
  return { watches, of, watch, seen }
}
