<script setup lang="ts">
import IconButton from '@/shared/ui/IconButton.vue'
import {
  mdiArchiveArrowDownOutline,
  mdiArchiveArrowUpOutline,
  mdiContentCopy,
  mdiDeleteOutline,
} from '@mdi/js'
import { keepPreviousData, useQueries, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { priced, day } from '@/shared/format'

const MOST = 12
/** every: for a manager, all of the office. archived: those put away. words: in title, address or client. */
const props = defineProps<{
  limit?: number
  bare?: boolean
  every?: boolean
  archived?: boolean
  words?: string
}>()
const client = useQueryClient()
const list = useQuery({
  queryKey: ['workups', computed(() => [!!props.every, !!props.archived, props.words ?? ''])],
  queryFn: () =>
    got(
      api.GET('/api/workups', {
        params: { query: { every: props.every, archived: props.archived, words: props.words } },
      }),
    ),
  staleTime: 0,
  placeholderData: keepPreviousData,
})
const rows = computed(() => (list.data.value ?? []).slice(0, props.limit ?? 500))

/** Where the newest stand, one after the other, so that nothing else waits for them. */
const standings = useQueries({
  queries: computed(() =>
    rows.value.slice(0, MOST).map((row) => ({
      queryKey: ['workup', row.workup_id, 'standing'],
      queryFn: () =>
        got(api.GET('/api/workups/{workup_id}/standing', { params: { path: { workup_id: row.workup_id } } })),
      staleTime: 0,
      retry: false,
    })),
  ),
})
const stands = computed(
  () => new Map(standings.value.flatMap((q) => (q.data ? [[q.data.workup_id, q.data]] : []))),
)
/** 7 homes kept · $418,000 indicated · list $425,000 · 3 changes since Aug 31, 2026 */
function says(row: Docs['WorkupRow']): string {
  if (row.fault) return row.fault
  const s = stands.value.get(row.workup_id)
  const changes = s?.changes === 1 ? '1 change' : `${s?.changes} changes`
  const ofKept = s?.kept ? `, ${s.kept} to homes kept` : ''
  return [
    row.whose ? `${row.whose}’s${row.may_edit ? '' : ', to read'}` : '',
    `${row.kept} ${row.kept === 1 ? 'home' : 'homes'} kept`,
    s?.indicated_value ? `${priced(s.indicated_value)} indicated` : '',
    row.list_price ? `list ${priced(row.list_price)}` : '',
    s?.changes ? `${changes} since ${day(s.effective_date)}${ofKept}` : '',
    row.delivered ?? '',
  ]
    .filter(Boolean)
    .join(' · ')
}

const path = (id: number) => ({ params: { path: { workup_id: id } } })
const again = () => client.invalidateQueries({ queryKey: ['workups'] })
async function copy(id: number) {
  await got(api.POST('/api/workups/{workup_id}/copy', path(id)))
  await again()
}
async function putAway(id: number, archived: boolean) {
  await got(api.PUT('/api/workups/{workup_id}/archived', { ...path(id), body: { archived } }))
  await again()
}
async function remove(id: number, title: string) {
  if (!window.confirm(`Delete the workup of ${title}? This cannot be undone.`)) return
  await got(api.DELETE('/api/workups/{workup_id}', path(id)))
  await again()
}
</script>

<template>
  <section v-if="rows.length" aria-label="Open workups">
    <h2 v-if="!bare" class="mb-2">Workups</h2>
    <div class="sheet">
      <div v-for="row in rows" :key="row.workup_id" class="row">
        <router-link :to="{ name: 'comps', params: { id: row.workup_id } }" class="title">{{
          row.title
        }}</router-link>
        <span class="quiet">{{ says(row) }}</span>
        <span class="quiet small when">changed {{ day(row.changed_at) }}</span>
        <span class="acts">
          <IconButton
            v-if="bare"
            :icon="mdiContentCopy"
            class="quiet"
            :name="`Copy the workup of ${row.title}`"
            @click="copy(row.workup_id)"
          />
          <IconButton
            v-if="bare && !row.whose"
            :icon="archived ? mdiArchiveArrowUpOutline : mdiArchiveArrowDownOutline"
            class="quiet"
            :name="archived ? `Take out the workup of ${row.title}` : `Put away the workup of ${row.title}`"
            @click="putAway(row.workup_id, !archived)"
          />
          <IconButton
            v-if="!row.whose"
            :icon="mdiDeleteOutline"
            class="quiet"
            :name="`Delete the workup of ${row.title}`"
            @click="remove(row.workup_id, row.title)"
          />
        </span>
      </div>
    </div>
  </section>
  <p v-else-if="list.isSuccess.value" class="quiet">
    {{
      words
        ? `No workup with “${words}”.`
        : archived
          ? 'Nothing is put away.'
          : 'No workups yet. Type part of an address above to begin one.'
    }}
  </p>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 0.62fr) minmax(0, 1.5fr) auto auto;
  gap: 16px;
  align-items: center;
  padding: 6px 8px 6px 16px;
  border-bottom: 1px solid rgba(var(--v-theme-line), 0.6);
}
.row:last-child {
  border-bottom: 0;
}
.acts {
  display: flex;
  justify-content: flex-end;
}
.title {
  color: inherit;
  font-weight: 600;
  text-decoration: none;
}
.title:hover {
  text-decoration: underline;
}
</style>
