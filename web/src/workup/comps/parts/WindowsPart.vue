<script setup lang="ts">
import { computed } from 'vue'
import { KIND_WORDS } from '@/shared/marks'
import type { SearchTools } from '../useSearch'

const props = defineProps<{ search: SearchTools }>()
const DAYS = [30, 60, 90, 120, 180, 270, 365, 545, 730, 1095, 1460, 1825]
const KINDS = ['sold', 'deed_sale', 'under_contract', 'for_sale', 'failed'] as const
const windows = computed(() => props.search.draft.value?.windows ?? {})
const change = (kind: string, to: object) => void props.search.take(props.search.withWindowOf(kind, to))
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
          <input
            type="date"
            :value="windows[kind]?.[end] ?? ''"
            :aria-label="`${KIND_WORDS[kind]} ${end}`"
            @change="change(kind, { on: true, [end]: text($event) || null })"
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
input[type='date'] {
  padding: 2px 4px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: inherit;
  background: transparent;
}
input[type='date'] {
  width: 122px;
}
table.plain td,
table.plain th {
  padding: 3px 6px;
}
</style>
