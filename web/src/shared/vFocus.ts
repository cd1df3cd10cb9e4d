import type { Directive } from 'vue'

const FRAMES = 6

/**
 * A field that has the focus when it appears, also in what opens later, where the browser’s own autofocus does nothing. Asked
 * for in each of the first frames: what is typed right after the press arrives, and a menu, which takes the focus for its own
 * frame, gives it back. What stands in it is selected, so that typing replaces it.
 */
export const vFocus: Directive<HTMLElement, boolean | undefined> = {
  mounted(element, { value }) {
    if (value === false) return
    const field = element.matches('input, select, textarea') ? element : element.querySelector('input')
    const before = document.activeElement
    const stood = field instanceof HTMLInputElement ? field.value : null
    const ask = (left: number) => {
      if (!field?.isConnected) return
      const within = field.closest('.v-overlay, [role=dialog]')
      // who has gone on to another field is left where they are
      const now = document.activeElement
      const gone = within
        ? now !== field && within.contains(now) && left < FRAMES - 3
        : now !== field && now !== before && now?.matches('input, select, textarea')
      if (gone && !within) return
      if (!gone || now?.matches('.v-overlay__content, .v-overlay')) {
        const comes = now !== field
        field.focus()
        if (comes && stood && field instanceof HTMLInputElement && field.value === stood) field.select()
      }
      if (left) requestAnimationFrame(() => ask(left - 1))
    }
    ask(FRAMES)
  },
}
