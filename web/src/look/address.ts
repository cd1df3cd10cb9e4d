import type { Search } from '@/finding/useFinding'

/** What a look holds behind the # of its address: a search, where one was made, and the homes ticked. */
export interface Held {
  search: Search | null
  ticked: string[]
}

export function toHash(held: Held): string {
  if (!held.search && !held.ticked.length) return ''
  const bytes = new TextEncoder().encode(JSON.stringify([held.search, held.ticked]))
  const text = btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''))
  return `#${text.replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '')}`
}

/** What an address holds; nothing for one that was cut short or typed by hand. */
export function fromHash(hash: string): Held {
  const nothing: Held = { search: null, ticked: [] }
  if (hash.length < 2) return nothing
  try {
    const text = atob(hash.slice(1).replaceAll('-', '+').replaceAll('_', '/'))
    const [search, ticked] = JSON.parse(
      new TextDecoder().decode(Uint8Array.from(text, (c) => c.charCodeAt(0))),
    ) as [Search | null, string[]]
    const good = Array.isArray(ticked) && ticked.every((k) => typeof k === 'string')
    return good && (search === null || typeof search === 'object') ? { search, ticked } : nothing
  } catch {
    return nothing
  }
}
