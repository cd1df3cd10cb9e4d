import { computed, shallowRef } from 'vue'

/**
 * A value that may be changed faster than it is saved. Each change builds on the one before, saves go out one after the
 * other, and what is saved takes the draft's place when nothing is on its way any more.
 */
export function useDraft<T>(saved: () => T, save: (next: T) => Promise<boolean>) {
  const ahead = shallowRef<{ held: T } | null>(null)
  let line: Promise<boolean> = Promise.resolve(true)
  let underWay = 0
  const value = computed(() => (ahead.value ? ahead.value.held : saved()))
  async function change(to: (held: T) => T): Promise<boolean> {
    const next = to(value.value)
    ahead.value = { held: next }
    underWay += 1
    const turn = line.then(() => save(next))
    line = turn
    const done = await turn
    underWay -= 1
    if (!underWay) ahead.value = null
    return done
  }
  return { value, change }
}
