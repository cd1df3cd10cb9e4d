import { ref } from 'vue'

/** Whether the page of keys lies over the page. */
export const keysShown = ref(false)

/** Every key and what it does, by where it does it: the page of keys and each room's own list read it here. */
export type Row = readonly [pressed: string, words: string]

export const KEEPING: Row[] = [
  ['K', 'keep it, or take that back'],
  ['X', 'set it aside, with a reason'],
  ['U', 'leave it undecided'],
  ['1 … 6', 'its condition: new … damaged'],
  ['Z', 'undo'],
]
export const TICKING: Row[] = [['Space', 'tick it, or take that back']]
/** The keys of a room of homes, with those by which they are chosen. */
export const ofHomes = (choosing: Row[]): Row[] => [
  ['↑ ↓', 'the home before, the next'],
  ['Enter', 'open it'],
  ...choosing,
  ['P', 'its pictures beside your home’s'],
  ['S', 'side by side, and back'],
  ['F', 'in figures, and back'],
  ['L', 'what the marks mean'],
]

export const KEYS: readonly { where: string; rows: readonly Row[] }[] = [
  {
    where: 'Everywhere',
    rows: [
      ['Ctrl K', 'which home, number, workup or command'],
      ['?', 'this page'],
      ['L', 'what the marks mean'],
      ['Esc', 'close what lies over the page'],
      ['Shift Enter', 'in the field of homes: look around it, without a workup'],
    ],
  },
  { where: 'Comps, and homes around', rows: ofHomes([...KEEPING, ...TICKING]) },
  {
    where: 'The map',
    rows: [
      ['↑ ↓ ← →', 'move the map, or the handle that is taken'],
      ['N', 'take the next handle: radius, corners, fences'],
      ['Enter', 'set a corner, or let a handle go'],
      ['A', 'a corner more after this one'],
      ['Delete', 'this corner away'],
      ['Backspace', 'the last corner away while drawing'],
    ],
  },
  {
    where: 'Two homes’ pictures',
    rows: [
      ['← →', 'the picture before, the next'],
      ['↑ ↓', 'the home before, the next'],
    ],
  },
  {
    where: 'The price rail',
    rows: [
      ['← →', 'the list price by 1,000'],
      ['Shift ← →', 'by 10,000'],
    ],
  },
  {
    where: 'Worth',
    rows: [
      ['Alt ← →', 'on a comp’s head: move its column'],
      ['Tab', 'from cell to cell; an empty field is the computed figure again'],
      ['Z', 'undo'],
    ],
  },
  {
    where: 'Paper',
    rows: [
      ['Alt ↑ ↓', 'on a page: move it'],
      ['Delete', 'on a page: leave it out'],
    ],
  },
]
