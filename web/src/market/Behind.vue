<script setup lang="ts">
import { later } from '@/shared/useReaching'
import DialogBox from '@/shared/ui/DialogBox.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { day, number, perSqft, sized } from '@/shared/format'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import { shownAs } from './useView'
import { localHead } from '@/shared/localForm'

/** The records behind one figure, on the map and as a table. */
const props = defineProps<{ ask: Docs['BehindAsk']; title: string }>()
const emit = defineEmits<{ close: [] }>()
const HomeMap = later(() => import('@/shared/map/HomeMap.vue'))
const told = useQuery({
  queryKey: ['behind', computed(() => props.ask)],
  queryFn: () => got(api.POST('/api/market/behind', { body: props.ask })),
  retry: false,
})
const records = computed(() => told.data.value?.records ?? [])
const middle = computed(() => {
  const placed = records.value.filter((r) => r.latitude !== null)
  const mean = (of: (r: (typeof placed)[number]) => number) =>
    placed.reduce((sum, r) => sum + of(r), 0) / placed.length
  return placed.length
    ? { latitude: mean((r) => r.latitude as number), longitude: mean((r) => r.longitude as number) }
    : null
})
const lit = ref<string | null>(null)
const link = (key: string) =>
  key.startsWith('deed:') ? null : { name: 'around', query: { kind: 'listing', key } }
</script>

<template>
  <DialogBox :title="title" :width="1120" @close="emit('close')">
    <template #head>
      <h2>{{ title }}</h2>
      <p v-if="told.data.value" class="figure">
        {{ localHead(told.data.value.label) }}:
        <b>{{ shownAs(told.data.value.value.value, told.data.value.unit) }}</b>
        <span class="quiet">
          from {{ number(told.data.value.count) }} {{ told.data.value.count === 1 ? 'record' : 'records' }}
          <template v-if="told.data.value.count > records.length"
            >; the {{ records.length }} dearest are listed</template
          >
        </span>
      </p>
    </template>
    <div class="behind">
      <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
      <p v-else-if="told.isPending.value" class="quiet">Gathering …</p>
      <p v-else-if="!records.length" class="quiet">No record stands behind this figure.</p>
      <p v-if="told.data.value?.worked" class="small worked" aria-label="How it was worked out">
        {{ told.data.value.worked }}
      </p>
      <div v-if="records.length" class="halves">
        <div class="map">
          <HomeMap
            v-if="middle"
            :subject="middle"
            :candidates="records"
            :lit="lit"
            :zoom="13"
            unnamed
            @lit="lit = $event"
          />
        </div>
        <div class="list">
          <PlainTable class="small" aria-label="Records behind the figure">
            <thead>
              <tr>
                <th>Home</th>
                <th>Date</th>
                <th class="num">Price</th>
                <th class="num">List</th>
                <th class="num">{{ localHead('$/sq ft') }}</th>
                <th class="num">Area</th>
                <th class="num">Days</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="r in records"
                :key="r.listing_id"
                :class="{ at: lit === r.listing_id }"
                @mouseenter="lit = r.listing_id"
                @mouseleave="lit = null"
              >
                <td>
                  <Mark :kind="r.kind" />
                  <router-link v-if="link(r.listing_id)" :to="link(r.listing_id)!">{{
                    r.address || r.listing_id
                  }}</router-link>
                  <template v-else>{{ r.address || KIND_WORDS[r.kind] }}</template>
                </td>
                <td>{{ day(r.date) }}</td>
                <td class="num">
                  <b>{{ number(r.price) }}</b>
                </td>
                <td class="num">{{ number(r.list_price) }}</td>
                <td class="num">{{ perSqft(r.price_per_sqft) }}</td>
                <td class="num">{{ sized(r.living_area, 'sq ft') }}</td>
                <td class="num">{{ r.days_on_market ?? '—' }}</td>
              </tr>
            </tbody>
          </PlainTable>
        </div>
      </div>
    </div>
  </DialogBox>
</template>

<style scoped>
.behind {
  color: rgb(var(--v-theme-slate));
  height: min(560px, 74vh);
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
.worked {
  margin-bottom: 8px;
}
.halves {
  grid-row: 2;
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 14px;
  min-height: 0;
}
.map {
  position: relative;
  min-height: 0;
}
.list {
  overflow: auto;
}
.at td {
  background: rgba(var(--v-theme-lamp), 0.16);
}
td a {
  color: inherit;
}
</style>
