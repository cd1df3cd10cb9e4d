import { ref } from 'vue'

/**
 * The two ends of a limit. Who moves both types one past the other first: that is judged once both are left, or on Enter, not on
 * the way from one field to the other. `pair` is what holds the two fields.
 */
export function useEnds(isCrossed: () => boolean, take: () => void) {
  const pair = ref<HTMLElement>()
  let isHeld = false
  function changed() {
    const field = document.activeElement // a field says that it is changed before it is left
    isHeld = false
    window.setTimeout(() => {
      const next = document.activeElement
      isHeld = isCrossed() && next !== field && Boolean(pair.value?.contains(next))
      if (!isHeld) take()
    })
  }
  function left(event: FocusEvent) {
    if (!isHeld || pair.value?.contains(event.relatedTarget as Node | null)) return
    isHeld = false
    take()
  }
  return { pair, changed, left }
}
