<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import DateField from '@/shared/DateField.vue'
import { KIND_WORDS } from '@/shared/marks'
import type { SearchTools } from '../useSearch'

const props = defineProps<{ search: SearchTools }>()
const DAYS = [30, 60, 90, 120, 180, 270, 365, 545, 730, 1095, 1460, 1825]
const KINDS = ['sold', 'deed_sale', 'under_contract', 'for_sale', 'failed'] as const
const windows = computed(() => props.search.draft.value?.windows ?? {})
const change = (kind: string, to: object) => void props.search.take(props.search.withWindowOf(kind, to))
const statuses = useQuery({
  queryKey: ['record-statuses'],
  queryFn: () => got(api.GET('/api/record-statuses')),
  staleTime: Infinity,
})
/** Which statuses of a kind are meant: all of them where none is named. */
function only(kind: string, status: string) {
  const all = Object.keys(statuses.data.value?.[kind] ?? {})
  const held = windows.value[kind]?.only?.length ? windows.value[kind]!.only! : all
  const next = held.includes(status) ? held.filter((s) => s !== status) : [...held, status]
  const whole = next.length === all.length || !next.length
  change(kind, { on: next.length > 0, only: whole ? [] : all.filter((s) => next.includes(s)) })
}
const meant = (kind: string, status: string) => {
  const window = windows.value[kind]
  return !!window?.on && (!window.only?.length || window.only.includes(status))
}
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <table class="plain small" aria-label="Kinds of record and how far back">
    <thead>
      <tr>
        <th>Kind</th>
        <th>Back</th>
        <th>or since</th>
        <th>until</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="kind in KINDS" :key="kind">
        <td>
          <label class="kind">
            <input
              type="checkbox"
              :checked="windows[kind]?.on"
              @change="change(kind, { on: ($event.target as HTMLInputElement).checked })"
            />
            {{ KIND_WORDS[kind] }}
          </label>
          <label v-for="(words, status) in statuses.data.value?.[kind] ?? {}" :key="status" class="kind sub">
            <input
              type="checkbox"
              :checked="meant(kind, String(status))"
              @change="only(kind, String(status))"
            />
            {{ words.replace('under contract ', '') }}
          </label>
        </td>
        <td>
          <select
            :value="
              windows[kind]?.since || windows[kind]?.until ? 'dates' : String(windows[kind]?.days ?? 'all')
            "
            :aria-label="`${KIND_WORDS[kind]}: days back`"
            @change="
              change(kind, {
                on: true,
                days: text($event) === 'all' ? null : Number(text($event)),
                since: null,
                until: null,
              })
            "
          >
            <option v-if="windows[kind]?.since || windows[kind]?.until" value="dates">by dates</option>
            <option value="all">no limit</option>
            <option v-for="d in DAYS" :key="d" :value="String(d)">{{ d }} days</option>
            <option
              v-if="windows[kind]?.days && !DAYS.includes(windows[kind]!.days!)"
              :value="String(windows[kind]!.days)"
            >
              {{ windows[kind]!.days }} days
            </option>
          </select>
        </td>
        <td v-for="end in ['since', 'until'] as const" :key="end">
          <DateField
            :value="windows[kind]?.[end]"
            :aria-label="`${KIND_WORDS[kind]} ${end}`"
            @date="change(kind, { on: true, [end]: $event })"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.kind {
  white-space: nowrap;
}
select,
table :deep(input[placeholder]) {
  padding: 2px 4px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: inherit;
  background: transparent;
}
table :deep(input[placeholder]) {
  width: 96px;
}
.sub {
  display: block;
  padding-left: 18px;
}
table.plain td,
table.plain th {
  padding: 3px 6px;
  vertical-align: top;
}
</style>
