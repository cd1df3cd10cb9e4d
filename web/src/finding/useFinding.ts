import { computed, inject, provide, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { Docs, Told } from '@/shared/api/client'
import type { Choice } from '@/shared/map/marks'

export type Candidate = Docs['CandidateDoc']
export type Search = Docs['SearchDoc']

/**
 * What a search finds from where it is looked from, and what is chosen of it: a workup, which keeps decisions, or a look, in
 * which homes are ticked and nothing is kept. All parts of the room speak to this alone.
 */
export interface Finding {
  /** Homes are kept and set aside, or ticked. */
  way: 'keep' | 'tick'
  /** Whether anything but the search changes what is found: names the answers of the service among all that were asked. */
  stamp: ComputedRef<unknown[]>
  /** The home, or the place, that is looked from; facts are empty where there is none. */
  home: ComputedRef<
    | {
        subject: Docs['SubjectDoc']
        address: string
        picture: string | null
        /** A home, not only a place or nothing. */
        named: boolean
        /** Whether distances from it mean something. */
        here: boolean
        price: number | null
        until: string
      }
    | undefined
  >
  search: ComputedRef<Search | undefined>
  /** Makes it the search that holds; false where it was refused. */
  takeSearch(search: Search): Promise<boolean>
  found: { data: Ref<Docs['CandidatesDoc'] | undefined>; isFetching: Ref<boolean>; error?: Ref<unknown> }
  saving: Readonly<Ref<boolean>>
  refused: Ref<Told | null>
  choices: ComputedRef<Record<string, Choice>>
  choiceOf(key: string): Choice
  reasonOf(key: string): string
  decide(keys: string[], choice: Choice, reason?: string): Promise<boolean>
  kept: ComputedRef<number>
  lit: Ref<string | null>
  /** Condition as the agent rates it, 6 to 1; nowhere but in a workup. */
  conditionOf(key: string): number | undefined
  rate(key: string, grade: number | null): void
  ask: {
    counts(search: Search): Promise<Docs['CountsDoc']>
    spread(field: string): Promise<Docs['FieldSpreadDoc']>
    proposals(): Promise<Docs['ProposalsDoc']>
    summaries(): Promise<Docs['SummariesDoc']>
    likeness(key: string): Promise<Docs['LikenessPartDoc'][]>
    /** A record as it stood on the day that is looked from. */
    record(key: string): Promise<Docs['FullRecordDoc']>
    saveSearch(name: string): Promise<unknown>
    carry(searchId: number): Promise<Docs['Carried']>
  }
}

const KEY: InjectionKey<Finding> = Symbol('finding')

export function provideFinding(made: Finding): Finding {
  provide(KEY, made)
  return made
}

export function useFinding(): Finding {
  const held = inject(KEY)
  if (!held) throw new Error('useFinding stands inside a room that finds homes only')
  return held
}

/** Whether what a search finds is here: the service has one processor for all that a page asks for, and that is looked at first. */
export const afterFound = ({ found }: Pick<Finding, 'found'>) => computed(() => !found.isFetching.value)
