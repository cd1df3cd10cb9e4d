import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { useWorkup } from '../useWorkup'

/** The chance of a contract within so many days among those told; undefined where nothing is. */
export const within = (chances: Docs['AtPriceDoc']['chances'] | undefined, days: number) =>
  chances?.find((c) => c.days === days)

/** What the list price would mean: the set one, else the indicated value as it is shown. */
export function useAsking() {
  const { id, state, found, worth, open } = useWorkup()
  const price = computed(() => {
    const value = worth.data.value?.price.indicated_value
    return state.value?.list_price ?? (value || null)
  })
  const asking = useQuery({
    queryKey: ['asking', id, price, computed(() => open.data.value?.revision)],
    queryFn: () =>
      got(
        api.GET('/api/workups/{workup_id}/asking', {
          params: { path: { workup_id: id.value }, query: { list_price: price.value as number } },
        }),
      ),
    // at the price that is worked out just now, and after what is looked at first
    enabled: computed(
      () =>
        !worth.isFetching.value &&
        !worth.isPlaceholderData.value &&
        !found.isFetching.value &&
        !!price.value &&
        price.value > 1000,
    ),
    placeholderData: keepPreviousData,
  })
  const set = computed(() => state.value?.list_price != null)
  return { asking, price, set }
}
