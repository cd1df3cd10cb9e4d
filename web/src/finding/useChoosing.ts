import { inject, provide, ref, type InjectionKey, type Ref } from 'vue'
import type { Candidate, Finding } from './useFinding'

export interface Choosing {
  /** The home that is being set aside, while its reason is asked for. */
  asking: Ref<Candidate | null>
  keep(home: Candidate): void
  aside(home: Candidate): void
  back(home: Candidate): void
}
const KEY: InjectionKey<Choosing> = Symbol('choosing')

/** Keeping and setting aside, or ticking, for all that stands in a room and shows a home. */
export function provideChoosing({ decide }: Finding): Choosing {
  const asking = ref<Candidate | null>(null)
  const made: Choosing = {
    asking,
    keep: (home) => void decide([home.listing_id], 'kept'),
    aside: (home) => (asking.value = home),
    back: (home) => void decide([home.listing_id], 'undecided'),
  }
  provide(KEY, made)
  return made
}

export function useChoosing(): Choosing {
  const held = inject(KEY)
  if (!held) throw new Error('useChoosing stands inside a room that finds homes only')
  return held
}
