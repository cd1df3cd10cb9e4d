import { ref, watch, type Ref } from 'vue'

/** What is typed, once the fingers rest: nothing is asked for at every key. */
export function useRested(text: Ref<string>, milliseconds = 90): { rested: Ref<string>; rest: () => string } {
  const rested = ref(text.value.trim())
  let timer = 0
  watch(text, (now) => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => (rested.value = now.trim()), milliseconds)
  })
  /** What is typed by now, without waiting for the fingers. */
  function rest() {
    window.clearTimeout(timer)
    return (rested.value = text.value.trim())
  }
  return { rested, rest }
}
