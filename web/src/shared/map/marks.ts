/** The marks: shape says the kind of record, size and ring what the agent has done with it. */
import type { InjectionKey } from 'vue'
import type { Tokens } from '../style/tokens'

export type Choice = 'kept' | 'set_aside' | 'undecided'

/** What a chosen home is called: kept in a workup, ticked in a look. */
export const CHOSEN: InjectionKey<string> = Symbol('chosen')

export const KIND_WORDS: Record<string, string> = {
  sold: 'sold',
  deed_sale: 'deed sale',
  under_contract: 'under contract',
  for_sale: 'for sale',
  failed: 'failed',
}

export function markColour(choice: Choice, tokens: Tokens): string {
  return choice === 'kept' ? tokens.slate : choice === 'set_aside' ? tokens.quiet : tokens.rain
}

export function markRadius(choice: Choice): number {
  return choice === 'kept' ? 7 : choice === 'set_aside' ? 3.5 : 5.2
}

/** SVG body of a mark around (x, y). */
export function markBody(
  kind: string,
  x: number,
  y: number,
  r: number,
  colour: string,
  paper: string,
): string {
  const line = `stroke="${colour}" stroke-width="${Math.max(1.4, r / 3)}"`
  if (kind === 'sold') return `<circle cx="${x}" cy="${y}" r="${r}" fill="${colour}"/>`
  if (kind === 'deed_sale')
    return `<path d="M${x} ${y - r}l${r} ${r}l${-r} ${r}l${-r} ${-r}z" fill="${colour}"/>`
  const ring = `<circle cx="${x}" cy="${y}" r="${r}" fill="${paper}" ${line}/>`
  if (kind === 'under_contract')
    return `${ring}<path d="M${x} ${y - r}a${r} ${r} 0 0 0 0 ${2 * r}z" fill="${colour}"/>`
  if (kind === 'failed')
    return `${ring}<path d="M${x - r * 0.7} ${y + r * 0.7}l${1.4 * r} ${-1.4 * r}" ${line}/>`
  return ring
}

export function markSvg(kind: string, choice: Choice, tokens: Tokens, lit = false): string {
  const r = markRadius(choice) + (lit ? 2 : 0)
  const around =
    choice === 'kept' || lit
      ? `<circle cx="12" cy="12" r="${r + 2.2}" fill="none" stroke="${lit ? tokens.lamp : tokens.cedar}" stroke-width="${lit ? 2 : 1.4}"/>`
      : ''
  const body = markBody(kind, 12, 12, r, markColour(choice, tokens), tokens.paper)
  return `<svg xmlns="http://www.w3.org/2000/svg" width="24" height="24" viewBox="0 0 24 24">${around}${body}</svg>`
}

/** The subject: a small gabled house in cedar. */
export function houseSvg(tokens: Tokens): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="28" height="28" viewBox="0 0 28 28"><path d="M5 24V13L14 4l9 9v11z" fill="${tokens.cedar}" stroke="${tokens.paper}" stroke-width="2" stroke-linejoin="round"/></svg>`
}
