import { useQuery } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { api, got, Told } from '@/shared/api/client'
import { number } from '@/shared/format'
import { useRecordsChanged } from './useRecords'

const OFTEN = 700 // ms between two looks at how far it is

/** Imports taken back: how far each is, also after the page was left; stopped, with everything as it was. */
export function useUndo() {
  const changed = useRecordsChanged()
  const mine = ref<number | null>(null)
  const said = ref('')
  const fault = ref('')
  const underWay = useQuery({
    queryKey: ['undoing'],
    queryFn: () => got(api.GET('/api/records/undoing')),
    refetchInterval: (query) => (mine.value !== null || query.state.data?.length ? OFTEN : false),
  })
  const found = (importId: number) => underWay.data.value?.find((x) => x.import_id === importId)
  const isUnderWay = (importId: number) => mine.value === importId || found(importId) !== undefined
  const howFar = (importId: number) => {
    const x = found(importId)
    if (!x?.of) return 'taking it back …'
    return x.done < x.of ? `${number(x.done)} of ${number(x.of)} taken back` : 'putting addresses in order …'
  }
  watch(
    () => underWay.data.value?.length ?? 0,
    (now, before) => {
      if (now < before && mine.value === null) void changed() // one that was begun before this page was opened
    },
  )

  async function undo(importId: number) {
    said.value = fault.value = ''
    mine.value = importId
    void underWay.refetch()
    try {
      const done = await got(
        api.POST('/api/records/imports/{import_id}/undo', { params: { path: { import_id: importId } } }),
      )
      said.value =
        `Import ${importId} undone: ${number(done.removed)} records removed, ${number(done.restored)} put back.` +
        (done.kept.length
          ? ` ${number(done.kept.length)} stay, because import ${done.kept[0]!.changed_by} changed them later; undo that one first.`
          : '')
      await changed()
    } catch (error) {
      fault.value = (error as Told).message
    } finally {
      mine.value = null
      void underWay.refetch()
    }
  }

  /** Pressed before the service has begun, it is asked again until it has; what was done by then says so itself. */
  async function stop(importId: number) {
    const begunHere = mine.value === importId
    try {
      await got(
        api.DELETE('/api/records/imports/{import_id}/undo', { params: { path: { import_id: importId } } }),
      )
    } catch (error) {
      if (begunHere && (error as Told).status === 404) {
        await new Promise((soon) => setTimeout(soon, OFTEN / 4))
        if (mine.value === importId) await stop(importId)
      } else fault.value = (error as Told).message
    }
  }
  return { undo, stop, isUnderWay, howFar, said, fault }
}
