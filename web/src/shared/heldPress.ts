/**
 * What was pressed is what is taken, also where it moves away under the pointer before the button is let go. Pressing one thing
 * takes the focus from a field, whose value is judged then: a sentence that appears moves all below it, and the browser would give
 * the click to whatever stands there by then, or to nothing.
 */
const CONTROL =
  'button, a[href], label, summary, input, tr, [role=button], [role=option], [role=tab], [role=menuitem], [tabindex="0"]'
/** So far, in px, a hand moves that holds still; who moves farther has thought better of it, or drags. */
const STILL = 4

export function holdPresses() {
  let down: { control: HTMLElement; x: number; y: number } | null = null
  let isOwed = false
  const onWindow = <K extends keyof WindowEventMap>(name: K, hear: (event: WindowEventMap[K]) => void) =>
    window.addEventListener(name, hear, { capture: true })

  onWindow('pointerdown', (event) => {
    const control = (event.target as Element).closest?.<HTMLElement>(CONTROL)
    const isPress = event.pointerType === 'mouse' && event.button === 0 && control
    down = isPress ? { control, x: event.clientX, y: event.clientY } : null
  })
  onWindow('pointercancel', () => (down = null))
  onWindow('pointerup', (event) => {
    const held = down
    down = null
    if (!held?.control.isConnected || held.control.contains(event.target as Node)) return
    if (Math.hypot(event.clientX - held.x, event.clientY - held.y) > STILL) return
    isOwed = true
    window.setTimeout(() => {
      isOwed = false
      held.control.click()
    })
  })
  // the browser's own click goes to what both places have in common
  onWindow('click', (event) => {
    if (!isOwed || !event.isTrusted) return
    event.preventDefault()
    event.stopImmediatePropagation()
  })
}
