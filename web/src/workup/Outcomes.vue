<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { day, money, signedPct } from '@/shared/format'
import PlainTable from '@/shared/ui/PlainTable.vue'

/** What came of the agent's workups: offered at, lost, sold at, and how near the prices came. */
const told = useQuery({ queryKey: ['outcomes'], queryFn: () => got(api.GET('/api/outcomes')) })
const rows = computed(() => told.data.value?.rows ?? [])
const KINDS: Record<string, string> = {
  for_sale: 'for sale',
  under_contract: 'under contract',
  failed: 'failed',
  paused: 'paused',
  sold: 'sold',
}
const became = (r: Docs['OutcomeDoc']) => (r.sold_on ? 'sold' : (KINDS[r.kind] ?? r.kind))
/** The list price of today, where it is another than the first. */
const now = (r: Docs['OutcomeDoc']) =>
  r.last_list && r.first_list && r.last_list !== r.first_list ? `, now ${money(r.last_list)}` : ''
</script>

<template>
  <p v-if="told.isError.value" class="clay" role="alert">{{ told.error.value?.message }}</p>
  <p v-else-if="told.isPending.value" class="quiet">Looking …</p>
  <template v-else>
    <p class="says">{{ told.data.value?.says }}</p>
    <PlainTable v-if="rows.length" aria-label="What came of the workups">
      <thead>
        <tr>
          <th>Home</th>
          <th>As of</th>
          <th class="num">Indicated</th>
          <th class="num">List price named</th>
          <th>Offered since</th>
          <th>Became of it</th>
          <th class="num">Paid</th>
          <th class="num">Indicated against paid</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.workup_id">
          <td>
            <router-link class="link" :to="{ name: 'worth', params: { id: r.workup_id } }">{{
              r.title
            }}</router-link>
          </td>
          <td class="whole">{{ day(r.effective_date) }}</td>
          <td class="num">{{ r.indicated_value === null ? '' : money(r.indicated_value) }}</td>
          <td class="num">{{ r.list_price === null ? '' : money(r.list_price) }}</td>
          <td>
            <template v-if="r.listed_on">
              {{ day(r.listed_on) }}<template v-if="r.first_list"> for {{ money(r.first_list) }}</template
              >{{ now(r) }}
            </template>
          </td>
          <td class="whole">
            {{ became(r) }}<template v-if="r.sold_on">&nbsp;{{ day(r.sold_on) }}</template>
          </td>
          <td class="num">{{ r.price === null ? '' : money(r.price) }}</td>
          <td class="num">{{ r.off_pct === null ? '' : signedPct(r.off_pct) }}</td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-else class="quiet">
      None of your workups’ homes has come on the market or sold since its day. This fills by itself as newer
      records come in.
    </p>
  </template>
</template>

<style scoped>
.whole {
  white-space: nowrap;
}
.says {
  font-size: var(--title-s);
  margin-bottom: 14px;
}
</style>
