import type { View } from '../useView'
import type { Part } from './useBulletins'
import { drawnWords } from '@/shared/format'

/** The parts that a bulletin may have, in the order in which they are offered. */
export const KINDS: Record<NonNullable<Part['kind']>, string> = {
  headline: 'headline and key figures',
  prices: 'prices and closings',
  price_ways: 'three ways to see a price',
  bands: 'by size and price',
  pace: 'how fast it goes',
  flow: 'what comes and goes',
  shares: 'shares of what was asked',
  places: 'place by place',
  years: 'three years',
  heat: 'month by month',
  sold: 'what sold last',
  came_on: 'what came on last',
  so_far: 'the year so far',
  changed: 'what changed',
  since_last: 'since the last one',
  market_conditions: 'market conditions',
  view: 'the view above',
  words: 'what the words mean',
}
export const READY = {
  one_page: 'One page',
  four_pages: 'Four pages',
  year_in_review: 'Year in review',
  appraiser: 'For an appraiser',
  this_home: 'One home’s market',
} as const

export const blank = (kind: Part['kind'], view: View, title = ''): Part => ({
  kind,
  title,
  comment: '',
  view,
  table: kind !== 'sold',
  periods: 4,
  days: 30,
  figures: 4,
  page_break: false,
})

/** What a view looks at, in a few words: "detached, Lantern Hill and Quarry Bend"; `conditions` as they are said. */
export function viewWords(view: View, conditions: string[]): string {
  const places = (view.places ?? []).join(view.together ? ' and ' : ', ')
  return [
    view.home_kind || 'all kinds',
    places || drawnWords(view.drawn) || 'everywhere',
    conditions.join(', '),
  ]
    .filter(Boolean)
    .join(' · ')
}
