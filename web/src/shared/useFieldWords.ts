import { useFields } from './useFields'

/** Names of fields as people read them. */
export function useFieldWords() {
  const fields = useFields()
  const known = (name: string) => fields.data.value?.find((f) => f.name === name)?.label
  /** A field's label; one of the office's own that no record has yet by its own name. */
  const label = (name: string) =>
    known(name) ?? name.replace(/^own_(number|words|yes|date)_/, '').replaceAll('_', ' ')
  /** A reason with the field that it names in words: "suspect living_area" is a suspect living area. */
  const reason = (text: string) =>
    text.replace(/^suspect ([a-z_]+)$/, (_, name: string) => `suspect ${label(name).toLowerCase()}`)
  const facts = (record: Held) => joined(record, label)
  /** A row as it stood in a file, under the heads that it had there. */
  const asItStood = (row: Held) => joined(row, (head) => known(head) ?? head)
  return { label, reason, facts, asItStood }
}

type Held = Record<string, unknown> | undefined
/** What is known of a record in one line. */
function joined(record: Held, name: (of: string) => string): string {
  return Object.entries(record ?? {})
    .filter(([, value]) => value !== null && value !== '')
    .map(([of, value]) => `${name(of)} ${value}`)
    .join(' · ')
}
