import { computed, ref, watch, type Ref } from 'vue'
import type { Docs } from '@/shared/api/client'

export type Part = Required<Docs['PartDoc']>
type Preview = Docs['PreviewDoc']

const UNITS: Record<string, [string, number][]> = {
  'sq ft': [
    ['as it is', 1],
    ['acres', 43560],
    ['square metres', 10.7639],
    ['hundreds', 100],
  ],
  $: [
    ['as it is', 1],
    ['thousands', 1000],
    ['cents', 0.01],
  ],
}

/** The mapping of one file as it is edited: one part a field, each column's own part first. */
export function useMapping(preview: Ref<Preview | undefined>) {
  const parts = ref<Part[]>([])
  const touched = ref(false)
  watch(
    preview,
    (now, before) => {
      // the same preview fetched again takes nothing back that was changed by hand
      const same = (['file_id', 'kind', 'source'] as const).every((k) => now?.[k] === before?.[k])
      if (same && touched.value) return
      const kept = now && draftOf(now)
      if (now) parts.value = (kept ?? now.parts).map((p) => ({ ...empty(p.field), ...p }) as Part)
      touched.value = !!kept
    },
    { immediate: true },
  )
  // what is being worked on is there again after a reload
  watch(parts, (now) => touched.value && preview.value && keepDraft(preview.value, now), { flush: 'post' })
  const fields = computed(() => new Map((preview.value?.fields ?? []).map((f) => [f.name, f])))
  const alone = (column: string) =>
    parts.value.filter((p) => p.columns.length === 1 && p.columns[0] === column)
  /** What a column is: of several facts that stand in its cells, the first. */
  const single = (column: string) => alone(column)[0]
  /** Further facts that stand in the same cells. */
  const beside = (column: string) => alone(column).slice(1)
  const joined = computed(() => parts.value.filter((p) => p.columns.length !== 1))
  const guess = (column: string) =>
    preview.value?.guesses.find((g) => g.part.columns?.length === 1 && g.part.columns[0] === column)
  const taken = computed(() => new Set(parts.value.map((p) => p.field)))
  const used = computed(() => new Set(parts.value.flatMap((p) => p.columns)))
  /** Columns that are left out because nobody was sure, with what they may be. */
  const asked = computed(() =>
    (preview.value?.columns ?? []).flatMap((c) => {
      const perhaps = guess(c.name)
      const open = !used.value.has(c.name) && perhaps && !taken.value.has(perhaps.part.field)
      return open && !refused.value.has(c.name) ? [{ column: c, guess: perhaps }] : []
    }),
  )
  const refused = ref(new Set<string>())
  const refuse = (column: string) => (refused.value = new Set([...refused.value, column]))

  function choose(column: string, field: string) {
    const hint = preview.value?.guesses.find((g) => g.part.field === field && g.part.columns?.[0] === column)
    parts.value = parts.value.filter(
      (p) => !(p.columns.length === 1 && p.columns[0] === column) && p.field !== field,
    )
    if (field)
      parts.value.push({ ...empty(field), columns: [column], ...(hint?.part as Partial<Part>) } as Part)
    touched.value = true
  }
  function change(field: string, to: Partial<Part>) {
    parts.value = parts.value.map((p) => (p.field === field ? { ...p, ...to } : p))
    touched.value = true
  }
  function word(field: string, from: string, to: string) {
    const values = { ...parts.value.find((p) => p.field === field)?.values }
    if (to === from) delete values[from]
    else values[from] = to
    change(field, { values })
  }
  function add(part: Partial<Part> & { field: string }) {
    parts.value = [
      ...parts.value.filter((p) => p.field !== part.field),
      { ...empty(part.field), ...part } as Part,
    ]
    touched.value = true
  }
  function remove(field: string) {
    parts.value = parts.value.filter((p) => p.field !== field)
    touched.value = true
  }
  function replace(all: Docs['PartDoc'][]) {
    parts.value = all.map((p) => ({ ...empty(p.field), ...p }) as Part)
    touched.value = true
  }
  const units = (field: string) => UNITS[fields.value.get(field)?.unit ?? ''] ?? []
  return {
    parts,
    touched,
    fields,
    single,
    beside,
    used,
    asked,
    refuse,
    joined,
    guess,
    taken,
    choose,
    change,
    word,
    add,
    remove,
    replace,
    units,
  }
}

const draftName = (of: Preview) => `rain-porch.mapping ${of.file_id} ${of.kind} ${of.source}`
function draftOf(of: Preview): Part[] | null {
  try {
    return JSON.parse(sessionStorage.getItem(draftName(of)) ?? 'null') as Part[] | null
  } catch {
    return null // a browser that keeps nothing
  }
}
function keepDraft(of: Preview, parts: Part[]) {
  try {
    sessionStorage.setItem(draftName(of), JSON.stringify(parts))
  } catch {
    // nothing is kept: what was looked at last is, by the service
  }
}

function empty(field: string): Part {
  return {
    field,
    columns: [],
    how: 'join',
    between: ' ',
    times: 1,
    values: {},
    constant: null,
    form: '',
    take: '',
  }
}
