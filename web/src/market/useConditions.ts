import { computed } from 'vue'
import { useFields } from '@/shared/useFields'
import { grouped, type Group } from './conditions'

/** The fields on which a view may set conditions, and its conditions as they are said. */
export function useConditions() {
  const fields = useFields()
  const asked = computed(() => [
    { name: 'price', label: 'Price', kind: 'money', unit: '$' },
    { name: 'seller', label: 'Seller', kind: 'word', unit: '' },
    ...(fields.data.value ?? [])
      .filter((f) => f.searched && !['date', 'time', 'text'].includes(f.kind))
      .map((f) => ({ name: f.name, label: f.label, kind: f.kind, unit: f.unit })),
  ])
  const field = (name: string) => asked.value.find((f) => f.name === name)
  const groups = (conditions: string[]): Group[] =>
    grouped(
      conditions,
      (name) => field(name)?.label,
      (name) => field(name)?.unit ?? '',
    )
  return { asked, groups }
}
