import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { useWorkup } from '../useWorkup'

/** How a field is spread over the homes that the search would find without its limit on it. */
export function useSpread(part: () => string) {
  const { id, open } = useWorkup()
  return useQuery({
    queryKey: ['spread', id, computed(part), computed(() => open.data.value?.revision)],
    placeholderData: keepPreviousData, // a handle that is being dragged stays under the hand
    queryFn: () =>
      got(
        api.GET('/api/workups/{workup_id}/spread', {
          params: { path: { workup_id: id.value }, query: { field: part() } },
        }),
      ),
  })
}
