import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, type Docs, type Told } from './api/client'
import { useRested } from './useRested'

export type Hit = Docs['HitDoc']

/** What a typed text may mean, and what opening one of the answers does. */
export function useLookup(text: Ref<string>) {
  const router = useRouter()
  const asked = useRested(text)
  const failed = ref('')
  const query = useQuery({
    queryKey: ['lookup', asked],
    queryFn: () => got(api.GET('/api/lookup', { params: { query: { text: asked.value } } })),
    enabled: computed(() => asked.value.length > 1),
    placeholderData: keepPreviousData,
  })
  const hits = computed(() => (asked.value.length > 1 ? (query.data.value?.hits ?? []) : []))
  const nearest = computed(() => (asked.value.length > 1 ? (query.data.value?.nearest ?? []) : []))
  const nothing = computed(
    () =>
      asked.value.length > 1 &&
      asked.value === text.value.trim() &&
      query.isSuccess.value &&
      !hits.value.length,
  )
  async function open(hit: Hit) {
    failed.value = ''
    try {
      if (hit.kind === 'workup') {
        await router.push({ name: 'comps', params: { id: hit.key } })
        return
      }
      if (hit.kind === 'area') {
        const view = { measures: ['median_price', 'months_of_supply'], places: [hit.key] }
        await router.push({ name: 'market', query: { view: JSON.stringify(view) } })
        return
      }
      const made = await got(api.POST('/api/workups', { body: { kind: hit.kind, key: hit.key } }))
      await router.push({ name: 'home', params: { id: made.workup_id } })
    } catch (error) {
      failed.value = (error as Told).message
    }
  }
  return { hits, nearest, nothing, failed, open }
}
