import { onBeforeUnmount, onMounted } from 'vue'

/** Whether a key press belongs to a field that is being typed in, so that shortcuts leave it alone. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  // a box that is ticked is no field to type in: it wants its Space alone
  if (target instanceof HTMLInputElement && target.type === 'checkbox') return event.key === ' '
  return !!target && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
}

/** Listen for keys while a component stands. `first`: before all others, as what lies over the page does. */
export function useKeys(handler: (event: KeyboardEvent) => void, first = false) {
  onMounted(() => window.addEventListener('keydown', handler, first))
  onBeforeUnmount(() => window.removeEventListener('keydown', handler, first))
}
