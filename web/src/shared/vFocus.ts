import type { Directive } from 'vue'

/** A field that has the focus when it appears, also in what opens later, where the browser’s own autofocus does nothing. */
export const vFocus: Directive<HTMLElement, boolean | undefined> = {
  mounted(element, { value }) {
    if (value === false) return
    const field = element.matches('input, select, textarea') ? element : element.querySelector('input')
    window.setTimeout(() => field?.focus(), 40) // a menu takes the focus first, for its own frame
  },
}
