import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'

import { inTurn } from '@/shared/useDraft'
import type { View } from '../useView'

export type Bulletin = Docs['BulletinDoc']
export type Part = Docs['BulletinPartDoc']

const BLANK: Bulletin = { title: '', comment: '', parts: [], readers: [], words: '' }

/** Bulletins: the one that is open saves itself, and its sheets are drawn anew after each change. */
export function useBulletins() {
  const client = useQueryClient()
  const all = useQuery({ queryKey: ['bulletins'], queryFn: () => got(api.GET('/api/bulletins')) })
  const at = ref<number | null>(null)
  const bulletin = ref<Bulletin | null>(null)
  const fault = ref('')
  const version = ref(0)
  const through = ref<string | null>(null) // a past day as which it is looked at; the newest records without one
  watch(
    all.data,
    (held) => {
      if (at.value === null && held?.length) open(held[0]!.bulletin_id)
    },
    { immediate: true },
  )
  function open(id: number) {
    const held = all.data.value?.find((l) => l.bulletin_id === id)
    if (!held) return
    at.value = id
    bulletin.value = JSON.parse(JSON.stringify(held.bulletin)) as Bulletin
    version.value += 1
  }
  async function tried(act: () => Promise<unknown>): Promise<boolean> {
    fault.value = ''
    try {
      await act()
      await client.invalidateQueries({ queryKey: ['bulletins'] })
      return true
    } catch (error) {
      fault.value = (error as Told).message
      return false
    }
  }
  /** A new one: empty, or with the parts of a ready layout for a view. */
  async function begin(layout?: Docs['ReadyAsk']['layout'], view?: View) {
    const names = (all.data.value ?? []).map((l) => l.bulletin.title)
    const called = view?.places?.[0] || view?.drawn || 'Bulletin'
    let title = called
    for (let n = 2; names.includes(title); n += 1) title = `${called} ${n}`
    await tried(async () => {
      const made =
        layout && view
          ? await got(api.POST('/api/bulletins/ready', { body: { layout, view, title } }))
          : await got(api.POST('/api/bulletins', { body: { ...BLANK, title } }))
      at.value = made.bulletin_id
      bulletin.value = made.bulletin
      version.value += 1
    })
  }
  const inOrder = inTurn()
  const saving = ref(0) // changes on their way: until they are kept, what would be handed out is the bulletin before
  /** Saves go out one after the other; what is refused goes back to what is saved. */
  async function save(next: Bulletin) {
    const id = at.value
    if (id === null) return
    bulletin.value = next
    saving.value += 1
    const done = await inOrder(() =>
      tried(() =>
        got(api.PUT('/api/bulletins/{bulletin_id}', { params: { path: { bulletin_id: id } }, body: next })),
      ),
    )
    saving.value -= 1
    if (done) version.value += 1
    else if (bulletin.value === next) open(id)
  }
  async function drop() {
    const id = at.value
    if (id === null) return
    at.value = null
    bulletin.value = null
    await tried(() =>
      got(api.DELETE('/api/bulletins/{bulletin_id}', { params: { path: { bulletin_id: id } } })),
    )
  }
  const sheets = useQuery({
    queryKey: ['bulletin-sheets', at, version, through],
    queryFn: () =>
      got(
        api.GET('/api/bulletins/{bulletin_id}/sheets', {
          params: { path: { bulletin_id: at.value! }, query: { through: through.value } },
        }),
      ),
    enabled: computed(() => at.value !== null && bulletin.value !== null),
    retry: false,
  })
  return { through, saving, all, at, bulletin, fault, version, sheets, open, begin, save, drop }
}
