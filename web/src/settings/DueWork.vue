<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import { moment } from '@/shared/format'
import { DAILY, RHYTHMS } from '@/shared/rhythms'
import { useSession } from '@/session/useSession'

/** Work that waits for its time: what is due when, what came of it; stopped, begun again, done at once. */
const client = useQueryClient()
const { isManager } = useSession()
const told = useQuery({
  queryKey: ['due-work'],
  queryFn: () => got(api.GET('/api/due-work')),
  refetchInterval: 5000,
})
const rows = computed(() => told.data.value ?? [])
const failed = ref('')
async function act(work: () => Promise<unknown>) {
  failed.value = ''
  try {
    await work()
  } catch (error) {
    failed.value = (error as Told).message
  }
  await client.invalidateQueries({ queryKey: ['due-work'] })
}
const on = (row: Docs['DueWorkDoc'], what: 'stop' | 'start' | 'now') =>
  act(() =>
    got(api.POST('/api/due-work/{work_id}/{act}', { params: { path: { work_id: row.work_id, act: what } } })),
  )
const timeOf = (row: Docs['DueWorkDoc']) => row.usual_at.slice(11, 16)
const hasTime = (row: Docs['DueWorkDoc']) => !!row.every_minutes && row.every_minutes % DAILY === 0
const setTime = (row: Docs['DueWorkDoc'], time: string) =>
  time &&
  act(() =>
    got(api.PUT('/api/due-work/{work_id}', { params: { path: { work_id: row.work_id } }, body: { time } })),
  )
const forget = (row: Docs['DueWorkDoc']) =>
  act(() => got(api.DELETE('/api/due-work/{work_id}', { params: { path: { work_id: row.work_id } } })))
/** Each night at two, from the next one on. */
function nightly() {
  const next = new Date()
  next.setHours(next.getHours() >= 2 ? 26 : 2, 0, 0, 0)
  const local = new Date(next.getTime() - next.getTimezoneOffset() * 60_000).toISOString().slice(0, 19)
  return act(() =>
    got(
      api.POST('/api/due-work', {
        body: { kind: 'backup', every_minutes: DAILY, due_at: local },
      }),
    ),
  )
}
const once = () =>
  act(() => got(api.POST('/api/due-work', { body: { kind: 'backup', every_minutes: DAILY } })))
const rhythm = (minutes: number | null) =>
  minutes === null ? 'once' : (RHYTHMS[minutes] ?? `every ${minutes} minutes`)
const state = (row: Docs['DueWorkDoc']) =>
  row.stopped ? 'stopped' : row.running_since ? 'at work' : `due ${moment(row.due_at)}`
</script>

<template>
  <section aria-labelledby="due-work">
    <h2 id="due-work" class="mt-8 mb-1">Work that waits</h2>
    <p v-if="failed" class="clay small" role="alert">{{ failed }}</p>
    <PlainTable v-if="rows.length" aria-label="Work that waits">
      <thead>
        <tr>
          <th>What</th>
          <th>When</th>
          <th>Last time</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.work_id">
          <td>
            {{ row.name }}, {{ rhythm(row.every_minutes) }}
            <template v-if="hasTime(row)">
              at
              <TypedInput
                type="time"
                class="time"
                :value="timeOf(row)"
                :aria-label="`Time of day of ${row.name}`"
                @typed="setTime(row, $event)"
              />
            </template>
          </td>
          <td class="when">{{ state(row) }}</td>
          <td>
            {{ moment(row.last_at) }}
            <span class="said" :class="row.failures ? 'clay' : 'quiet'">{{ row.last_said }}</span>
          </td>
          <td>
            <div class="acts">
              <ActButton plain @click="on(row, row.stopped ? 'start' : 'stop')">{{
                row.stopped ? 'Start' : 'Stop'
              }}</ActButton>
              <ActButton plain @click="on(row, 'now')">Do it now</ActButton>
              <ActButton plain @click="forget(row)">Take away</ActButton>
            </div>
          </td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-else class="quiet">Nothing waits. A backup holds records, workups and photos in one file.</p>
    <p v-if="isManager && !rows.some((r) => r.kind === 'backup')" class="mt-3 acts">
      <ActButton @click="nightly"> Back up every night </ActButton>
      <ActButton plain @click="once"> Back up now and every day </ActButton>
    </p>
  </section>
</template>

<style scoped>
table {
  width: 100%;
}
.said {
  display: block;
  font-size: var(--small);
}
.time {
  padding: 1px 4px;
  border-bottom: 1px dotted rgb(var(--v-theme-quiet));
  color: inherit;
}
.when {
  white-space: nowrap;
}
.acts {
  display: flex;
  gap: 6px;
}
</style>
