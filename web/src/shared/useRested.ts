import { ref, watch, type Ref } from 'vue'

/** What is typed, once the fingers rest: nothing is asked for at every key. */
export function useRested(text: Ref<string>, milliseconds = 90): Ref<string> {
  const rested = ref(text.value.trim())
  let timer = 0
  watch(text, (now) => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => (rested.value = now.trim()), milliseconds)
  })
  return rested
}
