let before: Element | null = null

/** Called as a navigation begins: what has the focus then. */
export function noteFocus() {
  before = document.activeElement
}

/** Whether the focus is where it was when the navigation began: a room that comes late takes it from nobody who has gone on. */
export function isFocusUnmoved(): boolean {
  const now = document.activeElement
  return now === null || now === document.body || now === before
}
