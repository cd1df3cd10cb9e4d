import { computed, ref, watch, type Ref } from 'vue'
import { isTyping, useKeys } from '@/shared/keys/keys'
import { useFinding, type Candidate } from './useFinding'
import type { Choosing } from './useChoosing'

export const WAYS = { around: 'Around', beside: 'Side by side', figures: 'In figures' }
/** On a phone one thing at a time. */
export const NARROW_WAYS = { search: 'Search', list: 'List', map: 'Map', figures: 'Figures' }
export type Way = keyof typeof WAYS | keyof typeof NARROW_WAYS

/** What the room shows, and its keys: move, open, choose, rate, compare. */
export function useFindingKeys(
  {
    shown,
    current,
    move,
  }: { shown: Ref<Candidate[]>; current: Ref<Candidate | undefined>; move(by: number): void },
  { asking, aside }: Choosing,
  dropTool: () => boolean,
  narrow: Ref<boolean>,
) {
  const { conditionOf, rate: rateHome, choiceOf, decide, way: chooses } = useFinding()
  const way = ref<Way>(narrow.value ? 'list' : 'around')
  watch(narrow, (now) => {
    if (now && !(way.value in NARROW_WAYS)) way.value = 'list'
    else if (!now && !(way.value in WAYS)) way.value = 'around'
  })
  const beside = computed(() => way.value === 'beside')
  const opened = ref(false)
  const two = ref(false)

  /** Move on, past homes that stand in no column. */
  function step(by: number) {
    for (let n = 0; n < shown.value.length; n += 1) {
      move(by)
      if (!beside.value || (current.value && choiceOf(current.value.listing_id) !== 'set_aside')) return
    }
  }
  function rate(grade: number) {
    const key = current.value?.listing_id
    if (key && chooses === 'keep') rateHome(key, conditionOf(key) === grade ? null : grade)
  }
  let byKey = false // who works by keys goes on to the next home, who presses stays
  function asideByKey() {
    if (!current.value || chooses === 'tick') return
    byKey = true
    aside(current.value)
  }
  watch(asking, (now) => now || (byKey = false))
  function setAside(reason: string) {
    const key = asking.value?.listing_id
    const goesOn = byKey
    asking.value = null
    if (!key) return
    void decide([key], 'set_aside', reason)
    if (goesOn) move(1)
  }
  function keepOne() {
    const key = current.value?.listing_id
    if (!key) return
    void decide([key], choiceOf(key) === 'kept' ? 'undecided' : 'kept')
    move(1)
  }
  const flip = (to: 'beside' | 'figures') => (way.value = way.value === to ? 'around' : to)

  useKeys((event) => {
    const onButton = (event.target as HTMLElement).tagName === 'BUTTON' && event.key === 'Enter'
    if (isTyping(event) || onButton || event.ctrlKey || event.metaKey || event.altKey || asking.value) return
    const pressed = event.key.toLowerCase()
    if (two.value) return
    if (pressed === 'arrowdown' || (beside.value && pressed === 'arrowright')) step(1)
    else if (pressed === 'arrowup' || (beside.value && pressed === 'arrowleft')) step(-1)
    else if (pressed === 's') flip('beside')
    else if (pressed === 'f') flip('figures')
    else if (pressed === 'escape') {
      if (!dropTool()) return
    } else if (!current.value) return
    else if (pressed === 'p') two.value = true
    else if (/^[1-6]$/.test(pressed)) rate(7 - Number(pressed))
    else if (pressed === 'k' || (pressed === ' ' && chooses === 'tick')) keepOne()
    else if (pressed === 'enter') opened.value = true
    else if (pressed === 'x') asideByKey()
    else if (pressed === 'u') void decide([current.value.listing_id], 'undecided')
    else return
    event.preventDefault()
  })
  return { way, beside, opened, two, step, rate, asideByKey, setAside, keepOne }
}
