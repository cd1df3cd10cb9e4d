import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import type { Finding } from '@/finding/useFinding'
import { useWorkup } from '../useWorkup'

/** A workup as the room of homes sees it. */
export function useWorkupFinding(): Finding {
  const { id, open, state, found, send, decide, saving, refused, choices, choiceOf, kept, lit } = useWorkup()
  const path = computed(() => ({ workup_id: id.value }))
  return {
    way: 'keep',
    stamp: computed(() => ['workup', id.value, open.data.value?.revision]),
    home: computed(() => {
      const of = open.data.value
      return (
        of && {
          subject: of.subject,
          address: of.state.address,
          picture: of.picture ?? null,
          named: true,
          here: of.subject.placed !== false,
          price: of.state.list_price ?? of.asks.list_price ?? null,
          until: of.state.effective_date,
        }
      )
    }),
    search: computed(() => state.value?.search),
    takeSearch: (search) => send({ change: 'set_search', search }),
    found,
    saving,
    refused,
    choices,
    choiceOf,
    reasonOf: (key) => state.value?.decisions?.[key]?.reason ?? '',
    decide,
    kept,
    lit,
    conditionOf: (key) => state.value?.conditions?.[key],
    rate: (listing_id, grade) => void send({ change: 'rate_condition', listing_id, grade }),
    ask: {
      counts: (body) =>
        got(api.POST('/api/workups/{workup_id}/counts', { params: { path: path.value }, body })),
      spread: (field) =>
        got(
          api.GET('/api/workups/{workup_id}/spread', {
            params: { path: path.value, query: { field } },
          }),
        ),
      proposals: () => got(api.GET('/api/workups/{workup_id}/proposals', { params: { path: path.value } })),
      summaries: () => got(api.GET('/api/workups/{workup_id}/summaries', { params: { path: path.value } })),
      likeness: (listing_id) =>
        got(
          api.GET('/api/workups/{workup_id}/likeness/{listing_id}', {
            params: { path: { ...path.value, listing_id } },
          }),
        ),
      record: (listing_id) =>
        got(
          api.GET('/api/workups/{workup_id}/records/{listing_id}', {
            params: { path: { ...path.value, listing_id } },
          }),
        ),
      saveSearch: (name) =>
        got(
          api.POST('/api/workups/{workup_id}/searches', {
            params: { path: path.value },
            body: { name },
          }),
        ),
      carry: (search_id) =>
        got(
          api.GET('/api/workups/{workup_id}/searches/{search_id}', {
            params: { path: { ...path.value, search_id } },
          }),
        ),
    },
  }
}
