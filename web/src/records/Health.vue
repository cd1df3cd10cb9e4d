<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { number } from '@/shared/format'
import Spreads from './Spreads.vue'

const health = useQuery({ queryKey: ['health'], queryFn: () => got(api.GET('/api/records/health')) })
const by = ref<'by_source' | 'by_place'>('by_place')
const groups = computed<Docs['HealthRow'][]>(() => (health.data.value?.[by.value] ?? []).slice(0, 12))
const whole = computed(() => {
  const sources = health.data.value?.by_source ?? []
  const rows = sources.reduce((sum, s) => sum + s.rows, 0)
  const known = (name: string) => sources.reduce((sum, s) => sum + (s.known[name] ?? 0), 0)
  return { rows, known }
})
// what only some have comes first; what nobody has is named below
const all = computed(() =>
  Object.entries(health.data.value?.fields ?? {})
    .map(([name, label]) => ({
      name,
      label,
      share: whole.value.rows ? whole.value.known(name) / whole.value.rows : 0,
    }))
    .sort((a, b) => a.share - b.share),
)
const fields = computed(() => all.value.filter((f) => f.share > 0))
const nobody = computed(() => all.value.filter((f) => f.share === 0).map((f) => f.label.toLowerCase()))
const pct = (share: number) =>
  share === 0
    ? '0'
    : share < 0.005
      ? '<1'
      : share > 0.995 && share < 1
        ? '>99'
        : String(Math.round(100 * share))
const share = (g: Docs['HealthRow'], name: string) => (g.rows ? (g.known[name] ?? 0) / g.rows : 0)
</script>

<template>
  <div v-if="health.data.value">
    <div class="head">
      <p>
        Of {{ number(whole.rows) }} listings, the share that has each field, in percent. A field that few have
        is a poor limit for a search.
      </p>
      <div class="switch" role="group" aria-label="Columns of the table">
        <PressArea :aria-pressed="by === 'by_place'" @click="by = 'by_place'"> by neighbourhood </PressArea>
        <PressArea :aria-pressed="by === 'by_source'" @click="by = 'by_source'">by source</PressArea>
      </div>
    </div>
    <div class="sheet table shares" tabindex="0" role="region" aria-label="Shares that are known">
      <PlainTable aria-label="Share of listings that have each field">
        <thead>
          <tr>
            <th>Field</th>
            <th class="all">All</th>
            <th v-for="g in groups" :key="g.name" class="num group">
              {{ g.name }}<br /><span class="quiet">{{ number(g.rows) }}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in fields" :key="f.name">
            <td>{{ f.label }}</td>
            <td class="all">
              <i class="bar"><i :style="{ width: `${100 * f.share}%` }" /></i>
              <b>{{ pct(f.share) }}</b>
            </td>
            <td
              v-for="g in groups"
              :key="g.name"
              class="num cell"
              :style="{ background: `rgba(var(--v-theme-rain), ${0.3 * share(g, f.name)})` }"
            >
              {{ pct(share(g, f.name)) }}
            </td>
          </tr>
        </tbody>
      </PlainTable>
    </div>
    <p v-if="nobody.length" class="quiet small mt-2">No listing has: {{ nobody.join(', ') }}.</p>
    <Spreads />
  </div>
  <p v-else-if="health.isError.value" class="lamp" role="alert">{{ health.error.value?.message }}</p>
  <p v-else class="quiet">Counting …</p>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 24px;
  margin-bottom: 10px;
}
.switch {
  display: flex;
  flex: none;
  border: var(--line);
  border-radius: var(--corner);
  overflow: hidden;
}
.switch button {
  padding: 4px 12px;
}
.switch button[aria-pressed='true'] {
  background: rgb(var(--v-theme-surface));
  font-weight: 600;
}
.table {
  overflow: auto;
  max-height: 46vh;
}
thead th {
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
  vertical-align: bottom;
}
.group {
  max-width: 110px;
  white-space: normal;
}
.all {
  white-space: nowrap;
  width: 150px;
}
.bar {
  display: inline-block;
  width: 90px;
  height: 8px;
  margin-right: 8px;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-mist));
}
.bar i {
  display: block;
  height: 100%;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-rain));
}
table.plain td {
  padding: 3px 10px;
}
</style>
