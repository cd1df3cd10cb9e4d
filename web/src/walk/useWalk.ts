import { computed, ref } from 'vue'
import { STEPS } from './steps'

const KEY = 'walk'
const kept = Number(localStorage.getItem(KEY) ?? -1)
/** The step that is shown, −1 for none; where one left is kept in the browser. */
const at = ref(-1)
const left = ref(kept >= 0 && kept < STEPS.length ? kept : 0)

/** The walk through the job: begun or gone on with from the desk, left at any time. */
export function useWalk() {
  const step = computed(() => STEPS[at.value])
  function go(to: number) {
    at.value = left.value = Math.max(0, Math.min(STEPS.length - 1, to))
    localStorage.setItem(KEY, String(left.value))
  }
  function leave(done = false) {
    at.value = -1
    if (done) {
      left.value = 0
      localStorage.removeItem(KEY)
    }
  }
  return { at, left, step, count: STEPS.length, go, leave }
}
