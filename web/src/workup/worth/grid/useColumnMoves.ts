import { computed, ref } from 'vue'
import { useWorkup } from '../../useWorkup'

/** The comps' columns put in another order, by dragging one onto another or step by step. */
export function useColumnMoves() {
  const { worth, state, send } = useWorkup()
  const comps = computed(() => worth.data.value?.price.comps ?? [])
  const dragged = ref('')
  const over = ref('')
  const order = () => comps.value.map((c) => c.listing_id)
  function put(key: string, at: number) {
    const rest = order().filter((k) => k !== key)
    rest.splice(at, 0, key)
    if (rest.join() !== order().join())
      void send({ change: 'set_order', listing_ids: [...rest, ...unsold()] })
  }
  /** Kept homes that the grid does not hold keep their places behind. */
  const unsold = () =>
    Object.entries(state.value?.decisions ?? {})
      .filter(([key, d]) => d.choice === 'kept' && !order().includes(key))
      .map(([key]) => key)
  const move = (key: string, by: number) =>
    put(key, Math.max(0, Math.min(order().length - 1, order().indexOf(key) + by)))
  function dropOn(key: string) {
    const target = order().indexOf(key)
    over.value = ''
    if (dragged.value && dragged.value !== key) put(dragged.value, target)
    dragged.value = ''
  }
  return { dragged, over, move, dropOn }
}
