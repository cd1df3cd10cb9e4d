<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import type { Docs } from '@/shared/api/client'
import { DASH, day, money, number, perSqft } from '@/shared/format'
import Mark from '@/shared/Mark.vue'

/** The homes that a search found; the one under the pointer is lit here and on the map. */
defineProps<{ homes: Docs['LookDoc']['candidates']; miles: boolean }>()
const lit = defineModel<string | null>({ required: true })
</script>

<template>
  <PlainTable class="small homes" aria-label="Homes that were found">
    <thead>
      <tr>
        <th>Home</th>
        <th class="num">Price</th>
        <th class="num">$/sq ft</th>
        <th class="num">Sq ft</th>
        <th class="num">Built</th>
        <th v-if="miles" class="num">Miles</th>
        <th class="num">Date</th>
        <th class="num">Days</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="c in homes"
        :key="c.listing_id"
        :class="{ lit: lit === c.listing_id }"
        @mouseenter="lit = c.listing_id"
        @mouseleave="lit = null"
      >
        <td class="kind">
          <span class="marked"><Mark :kind="c.kind" /> {{ c.address || c.listing_id }}</span>
        </td>
        <td class="num">
          <b>{{ money(c.price) }}</b>
        </td>
        <td class="num">{{ perSqft(c.price_per_sqft) }}</td>
        <td class="num">{{ c.facts.living_area ? number(c.facts.living_area as number) : DASH }}</td>
        <td class="num">{{ c.facts.year_built ?? DASH }}</td>
        <td v-if="miles" class="num">{{ c.distance_miles?.toFixed(2) ?? '—' }}</td>
        <td class="num">{{ day(c.date) }}</td>
        <td class="num">{{ c.days_on_market ?? '' }}</td>
      </tr>
    </tbody>
  </PlainTable>
</template>

<style scoped>
.kind {
  white-space: nowrap;
  vertical-align: top;
}
.homes {
  margin-top: 18px;
}
.lit td {
  background: rgba(var(--v-theme-lamp), 0.14);
}
tbody td {
  padding-top: 3px !important;
  padding-bottom: 3px !important;
}
</style>
