import { onScopeDispose, ref, type Ref } from 'vue'

/** Whether the screen is that of a phone: one thing at a time then. */
export function useNarrow(most = 700): Ref<boolean> {
  const asked = window.matchMedia(`(max-width: ${most}px)`)
  const narrow = ref(asked.matches)
  const told = (event: MediaQueryListEvent) => (narrow.value = event.matches)
  asked.addEventListener('change', told)
  onScopeDispose(() => asked.removeEventListener('change', told))
  return narrow
}
