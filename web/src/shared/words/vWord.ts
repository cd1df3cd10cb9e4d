import type { Directive } from 'vue'
import { shallowRef } from 'vue'

/** What is being explained: the word's name in the glossary, what else is to be said, and what it stands on. */
export const explained = shallowRef<{ name: string; more: string; on: HTMLElement } | null>(null)
export const ID = 'meaning-of-a-word'

type Told = string | { name: string; more?: string }
const PATIENCE = 350
const named = new WeakMap<HTMLElement, Told>()
let waiting = 0

function tell(on: HTMLElement, at = PATIENCE) {
  window.clearTimeout(waiting)
  waiting = window.setTimeout(() => {
    const told = named.get(on)
    if (!told || !on.isConnected) return
    explained.value = typeof told === 'string' ? { name: told, more: '', on } : { more: '', ...told, on }
  }, at)
}

export function leave() {
  window.clearTimeout(waiting)
  explained.value = null
}

/**
 * A word with its meaning from the one glossary: under the pointer that rests on it, and where the focus comes to it by keys.
 * It takes no focus of its own: what it stands on or in has one, or it is read with its line.
 */
export const vWord: Directive<HTMLElement, Told> = {
  mounted(element, { value }) {
    named.set(element, value)
    element.classList.add('word')
    element.addEventListener('mouseenter', () => tell(element))
    element.addEventListener('mouseleave', leave)
    element.addEventListener('mousedown', leave)
    element.addEventListener('focusin', () => element.querySelector(':focus-visible') && tell(element, 700))
    element.addEventListener('focusout', leave)
  },
  updated(element, { value }) {
    named.set(element, value)
  },
  beforeUnmount(element) {
    if (explained.value?.on === element) leave()
  },
}
