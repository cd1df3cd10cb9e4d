import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, Told, withFile } from '@/shared/api/client'

export const KINDS = [
  'listings',
  'parcels',
  'transfers',
  'assessments',
  'history',
  'series',
  'areas',
  'photos',
] as const
export const KIND_WORDS: Record<string, string> = {
  listings: 'listings',
  parcels: 'parcels (tax roll)',
  transfers: 'transfers (deeds)',
  assessments: 'assessments',
  history: 'history of listings',
  series: 'a series (date, value)',
  areas: 'areas',
  photos: 'photos',
}
export const NUMBERS = ['new', 'changed', 'same', 'suspect', 'rejected'] as const

export function useRecords() {
  return useQuery({ queryKey: ['records'], queryFn: () => got(api.GET('/api/records')), staleTime: 0 })
}

/** Everything that shows records is asked for anew once they have changed. */
export function useRecordsChanged() {
  const client = useQueryClient()
  return () => client.invalidateQueries()
}

/** Sends a file to wait for its mapping, and goes to its page. */
export function useBring() {
  const router = useRouter()
  const sending = ref('')
  const fault = ref('')
  async function bring(files: FileList | File[] | null | undefined) {
    const all = [...(files ?? [])]
    fault.value = ''
    let first = ''
    try {
      for (const file of all) {
        sending.value = file.name
        const said = await got(
          api.POST('/api/records/incoming', { params: { query: { name: file.name } }, ...withFile(file) }),
        )
        first ||= said.file_id
      }
      if (first) await router.push({ name: 'incoming', params: { fileId: first } })
    } catch (error) {
      fault.value = (error as Told).message
    } finally {
      sending.value = ''
    }
  }
  return { bring, sending, fault }
}
