import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

/** Which rows of a long table are in sight: only those are drawn. Rows are all of one height, under a head that stays. */
export function useWindow(scroller: Ref<HTMLElement | undefined>, count: () => number, row: number) {
  const first = ref(0)
  const last = ref(60)
  function look() {
    const box = scroller.value
    if (!box) return
    first.value = Math.max(0, Math.floor(box.scrollTop / row) - 10)
    last.value = Math.min(Math.max(count(), 60), Math.ceil((box.scrollTop + box.clientHeight) / row) + 10)
  }
  function keepInSight(at: number) {
    const box = scroller.value
    if (!box) return
    const head = box.querySelector('thead')?.offsetHeight ?? 0
    const top = at * row
    if (top < box.scrollTop) box.scrollTop = top
    else if (top + row + head > box.scrollTop + box.clientHeight)
      box.scrollTop = top + row + head - box.clientHeight
  }
  onMounted(() => scroller.value?.addEventListener('scroll', look, { passive: true }))
  onBeforeUnmount(() => scroller.value?.removeEventListener('scroll', look))
  return { first, last, keepInSight }
}
