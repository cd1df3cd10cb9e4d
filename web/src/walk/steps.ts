/** The whole job in nine steps on the real screens. at: what is pointed at. */
export interface Step {
  room: string
  at: string
  title: string
  words: string
}

export const STEPS: readonly Step[] = [
  {
    room: 'desk',
    at: '.desk [role=combobox]',
    title: 'Choose a home',
    words:
      'Type part of an address, or press one of the homes below. Opening it begins a workup; everything saves by itself.',
  },
  {
    room: 'home',
    at: '.room table',
    title: 'See that its facts are right',
    words:
      'What the records say of it stands here. Type over what is wrong: the record stays, your word counts.',
  },
  {
    room: 'comps',
    at: '.sentence',
    title: 'Read the search as a sentence',
    words:
      'Every part of it opens. Drag the circle on the map, or press a part to widen or narrow it: the counts follow.',
  },
  {
    room: 'comps',
    at: '[role=application]',
    title: 'Keep the sales that a buyer would have looked at',
    words:
      'Press “Keep the most alike” to begin with. K keeps a home, X sets it aside with a reason, Z takes back.',
  },
  {
    room: 'worth',
    at: '[aria-label="Adjustment grid"], .worth .lamp',
    title: 'Follow the price line by line',
    words:
      'Each sale is brought to your home. Press the name of a line to see which sales speak for its rate; type your own over it.',
  },
  {
    room: 'worth',
    at: '[aria-label="Price rail"]',
    title: 'Set a list price',
    words:
      'Drag along the rail, or type it. The chance of a contract, what it competes with and what the seller nets follow.',
  },
  {
    room: 'paper',
    at: 'nav.pages',
    title: 'Look at the pages',
    words:
      'Just as they will print. Choose a layout, move and leave out pages, write a note under any of them.',
  },
  {
    room: 'paper',
    at: '.hand-over',
    title: 'Hand it over',
    words:
      'As a PDF, a web page or a message. What was handed over is kept as it was, whatever you change later.',
  },
  {
    room: 'market',
    at: '.room h1',
    title: 'Tell the market',
    words:
      'Any measure, any place, month by month; bulletins from it in words and pages. That is the whole job.',
  },
]
