import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useFinding } from '../useFinding'

/** How a field is spread over the homes that the search would find without its limit on it. */
export function useSpread(part: () => string) {
  const { stamp, ask } = useFinding()
  return useQuery({
    queryKey: ['spread', stamp, computed(part)],
    placeholderData: keepPreviousData, // a handle that is being dragged stays under the hand
    queryFn: () => ask.spread(part()),
  })
}
