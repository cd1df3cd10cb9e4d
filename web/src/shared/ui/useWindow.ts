import { onBeforeUnmount, onMounted, ref, watch, type Ref } from 'vue'

const FEW = 150 // rows that are all drawn: Tab and the browser's own search find every one

/** Which rows of a long table are in sight: only those are drawn. Rows are all of one height, under a head that stays. */
export function useWindow(scroller: Ref<HTMLElement | undefined>, count: () => number, row: number) {
  const first = ref(0)
  const last = ref(FEW)
  let scrolled = -1e4
  const resting = () => performance.now() - scrolled > 150
  function look() {
    const box = scroller.value
    if (!box) return
    if (count() <= FEW) {
      first.value = 0
      last.value = FEW
      return
    }
    first.value = Math.max(0, Math.floor(box.scrollTop / row) - 10)
    last.value = Math.min(Math.max(count(), FEW), Math.ceil((box.scrollTop + box.clientHeight) / row) + 10)
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
  watch(count, look)
  function moved() {
    scrolled = performance.now()
    look()
  }
  onMounted(() => scroller.value?.addEventListener('scroll', moved, { passive: true }))
  onBeforeUnmount(() => scroller.value?.removeEventListener('scroll', moved))
  return { first, last, resting, keepInSight }
}
