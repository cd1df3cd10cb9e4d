import { useFields } from './useFields'

/** Names of fields as people read them. */
export function useFieldWords() {
  const fields = useFields()
  /** A field's label; one of the office's own that no record has yet by its own name. */
  const label = (name: string) =>
    fields.data.value?.find((f) => f.name === name)?.label ??
    name.replace(/^own_(number|words|yes|date)_/, '').replaceAll('_', ' ')
  /** A reason with the field that it names in words: "suspect living_area" is a suspect living area. */
  const reason = (text: string) =>
    text.replace(/^suspect ([a-z_]+)$/, (_, name: string) => `suspect ${label(name).toLowerCase()}`)
  return { label, reason }
}
