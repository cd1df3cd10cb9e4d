<script setup lang="ts">
import { mdiDeleteOutline } from '@mdi/js'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { day, money, shortDay } from '@/shared/format'

const props = defineProps<{ limit?: number; bare?: boolean }>()
const client = useQueryClient()
const list = useQuery({ queryKey: ['workups'], queryFn: () => got(api.GET('/api/workups')), staleTime: 0 })
const behind = useQuery({
  queryKey: ['workups', 'left behind'],
  queryFn: () => got(api.GET('/api/left-behind')),
  staleTime: 0,
})
const since = computed(() => new Map((behind.data.value ?? []).map((b) => [b.workup_id, b])))
const rows = computed(() => (list.data.value ?? []).slice(0, props.limit ?? 500))

async function remove(id: number, title: string) {
  if (!window.confirm(`Delete the workup of ${title}? This cannot be undone.`)) return
  await got(api.DELETE('/api/workups/{workup_id}', { params: { path: { workup_id: id } } }))
  await client.invalidateQueries({ queryKey: ['workups'] })
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
        <span class="quiet">
          {{ row.kept }} {{ row.kept === 1 ? 'comp' : 'comps' }} kept
          <template v-if="row.list_price"> · list {{ money(row.list_price) }}</template>
          <template v-if="row.delivered"> · {{ row.delivered }}</template>
          <template v-if="since.get(row.workup_id)">
            ·
            <b
              >{{ since.get(row.workup_id)!.changes }}
              {{ since.get(row.workup_id)!.changes === 1 ? 'change' : 'changes' }}</b
            >
            since {{ shortDay(since.get(row.workup_id)!.effective_date)
            }}{{ since.get(row.workup_id)!.kept ? `, ${since.get(row.workup_id)!.kept} to its comps` : '' }}
          </template>
        </span>
        <span class="quiet small when">changed {{ day(row.changed_at) }}</span>
        <v-btn
          :icon="mdiDeleteOutline"
          size="x-small"
          class="quiet"
          :aria-label="`Delete the workup of ${row.title}`"
          @click="remove(row.workup_id, row.title)"
        />
      </div>
    </div>
  </section>
  <p v-else-if="list.isSuccess.value" class="quiet">
    No workups yet. Type part of an address above to begin one.
  </p>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 0.8fr) minmax(0, 1.3fr) auto 32px;
  gap: 16px;
  align-items: center;
  padding: 6px 8px 6px 16px;
  border-bottom: 1px solid rgba(var(--v-theme-line), 0.6);
}
.row:last-child {
  border-bottom: 0;
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
