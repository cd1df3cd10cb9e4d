import { useQuery } from '@tanstack/vue-query'
import { api, got } from './api/client'

/** The field catalogue: asked for once. */
export function useFields() {
  return useQuery({
    queryKey: ['fields'],
    queryFn: () => got(api.GET('/api/fields')),
    staleTime: Infinity,
  })
}

/** The kinds of home, as each is called: asked for once. */
export function useHomeKinds() {
  return useQuery({
    queryKey: ['home-kinds'],
    queryFn: () => got(api.GET('/api/home-kinds')),
    staleTime: Infinity,
  })
}
