import { computed, shallowRef } from 'vue'

/**
 * A value that may be changed faster than it is saved. Each change builds on the one before, and what is saved takes the
 * draft's place when nothing is on its way any more. `save` sends what it is given in the order in which it is given.
 */
export function useDraft<T>(saved: () => T, save: (next: T) => Promise<boolean>) {
  const ahead = shallowRef<{ held: T } | null>(null)
  let underWay = 0
  const value = computed(() => (ahead.value ? ahead.value.held : saved()))
  async function change(to: (held: T) => T): Promise<boolean> {
    const next = to(value.value)
    ahead.value = { held: next }
    underWay += 1
    const done = await save(next)
    underWay -= 1
    if (!underWay) ahead.value = null
    return done
  }
  return { value, change }
}

let waiting = 0 // of all that is done in turn, anywhere
/** Who leaves while something is not kept yet is asked. */
window.addEventListener('beforeunload', (event) => waiting && event.preventDefault())

/** Things done one after the other, whatever comes of each; the first at once, before anything is drawn. */
export function inTurn(): <T>(act: () => Promise<T>) => Promise<T> {
  let line: Promise<unknown> = Promise.resolve()
  let before = 0
  return (act) => {
    waiting += 1
    const turn = (before ? line.then(act) : act()).finally(() => {
      waiting -= 1
      before -= 1
    })
    before += 1
    line = turn.catch(() => undefined)
    return turn
  }
}
