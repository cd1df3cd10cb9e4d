import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import { useWorkup } from '../useWorkup'

const BIN = 2.5
const EDGE = 30

/** The test of the method on the last sales around this home: started, followed, stopped, and drawn as bars of errors. */
export function useBacktest() {
  const { id } = useWorkup()
  const client = useQueryClient()
  const path = computed(() => ({ workup_id: id.value }))
  const fault = ref('')
  const test = useQuery({
    queryKey: ['backtest', id],
    queryFn: async () => {
      const before = client.getQueryData<Docs['TestDoc']>(['backtest', id.value])?.stage
      const now = await got(api.GET('/api/workups/{workup_id}/backtest', { params: { path: path.value } }))
      if (before === 'running' && now.stage === 'done') void client.invalidateQueries({ queryKey: ['worth'] })
      return now
    },
    refetchInterval: (query) => (query.state.data?.stage === 'running' ? 400 : false),
  })
  async function tell(asked: Promise<Docs['TestDoc']>) {
    fault.value = ''
    try {
      client.setQueryData(['backtest', id.value], await asked)
    } catch (error) {
      fault.value = (error as Told).message
    }
  }
  const start = () =>
    tell(
      got(
        api.POST('/api/workups/{workup_id}/backtest', {
          params: { path: path.value },
          body: { sample: 200 },
        }),
      ),
    )
  const stop = () =>
    tell(got(api.DELETE('/api/workups/{workup_id}/backtest', { params: { path: path.value } })))

  function bars(value: (c: Docs['CaseDoc']) => number | null) {
    const out = new Array<number>((2 * EDGE) / BIN).fill(0)
    for (const c of test.data.value?.result?.cases ?? []) {
      const v = value(c)
      if (!v) continue
      const error = Math.max(-EDGE, Math.min(EDGE - 0.01, 100 * (v / c.actual - 1)))
      out[Math.floor((error + EDGE) / BIN)]! += 1
    }
    return out
  }
  const ours = computed(() => bars((c) => c.value))
  const perSqft = computed(() => bars((c) => c.per_sqft))
  return { test, start, stop, fault, ours, perSqft, BIN, EDGE }
}
