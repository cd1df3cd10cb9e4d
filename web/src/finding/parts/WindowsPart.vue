<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { KIND_WORDS } from '@/shared/map/marks'
import DateEnds from './DateEnds.vue'
import type { SearchTools } from '../search/useSearch'

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
</script>

<template>
  <PlainTable class="small" aria-label="Kinds of record and how far back">
    <thead>
      <tr>
        <th>Kind</th>
        <th>Back</th>
        <th colspan="2">
          <div class="ends"><span>or since</span><span>until</span></div>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="kind in KINDS" :key="kind">
        <td>
          <label class="kind">
            <CheckBox :model-value="windows[kind]?.on" @update:model-value="change(kind, { on: $event })" />
            {{ KIND_WORDS[kind] }}
          </label>
          <label v-for="(words, status) in statuses.data.value?.[kind] ?? {}" :key="status" class="kind sub">
            <CheckBox
              :model-value="meant(kind, String(status))"
              @update:model-value="only(kind, String(status))"
            />
            {{ words.replace('under contract ', '') }}
          </label>
        </td>
        <td>
          <ChoiceField
            :model-value="
              windows[kind]?.since || windows[kind]?.until ? 'dates' : String(windows[kind]?.days ?? 'all')
            "
            :aria-label="`${KIND_WORDS[kind]}: days back`"
            @chosen="
              change(kind, {
                on: true,
                days: $event === 'all' ? null : Number($event),
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
          </ChoiceField>
        </td>
        <td colspan="2">
          <DateEnds
            :low="windows[kind]?.since ?? null"
            :high="windows[kind]?.until ?? null"
            :names="[`${KIND_WORDS[kind]} since`, `${KIND_WORDS[kind]} until`]"
            @dates="(since, until) => change(kind, { on: true, since, until })"
          />
        </td>
      </tr>
    </tbody>
  </PlainTable>
</template>

<style scoped>
.ends {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.kind {
  white-space: nowrap;
}
select,
table :deep(input[placeholder]) {
  padding: 2px 4px;
  border: var(--line);
  border-radius: var(--corner);
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
