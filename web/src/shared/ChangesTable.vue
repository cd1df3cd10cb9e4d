<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { computed, ref } from 'vue'
import type { Docs } from './api/client'
import { day, number, signedPct, sized } from './format'
import Mark from './map/Mark.vue'

/** What happened to homes, the newest first; each kind of change switched on and off. `notes`: a word beside a home. */
const props = defineProps<{ told: Docs['ChangesDoc']; notes?: Record<string, string> }>()
const pressed = ref<string | null>(null)
/** The kind that is shown alone; all of them again where there is none of it any more. */
const only = computed(() => (pressed.value && props.told.counts[pressed.value] ? pressed.value : null))
const shown = computed(() => props.told.changes.filter((c) => only.value === null || c.what === only.value))
</script>

<template>
  <p v-if="!told.changes.length" class="quiet">Nothing happened here since that day.</p>
  <template v-else>
    <p class="kinds">
      <PressArea
        v-for="(n, what) in told.counts"
        :key="what"
        class="count"
        :aria-pressed="only === what"
        @click="pressed = only === what ? null : String(what)"
      >
        <b>{{ number(n) }}</b> {{ told.labels[what]!.toLowerCase() }}
      </PressArea>
    </p>
    <PlainTable aria-label="What changed">
      <thead>
        <tr>
          <th>Day</th>
          <th>What</th>
          <th>Home</th>
          <th class="num">Price</th>
          <th class="num">Before</th>
          <th class="num">Area</th>
          <th class="num">Days</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(c, i) in shown" :key="i">
          <td>{{ day(c.date) }}</td>
          <td>{{ told.labels[c.what] }}</td>
          <td>
            <Mark :kind="c.record.kind" />
            <router-link :to="{ name: 'around', query: { kind: 'listing', key: c.record.listing_id } }">{{
              c.record.address || c.record.listing_id
            }}</router-link>
            <b v-if="notes?.[c.record.listing_id]" class="note">{{ notes[c.record.listing_id] }}</b>
          </td>
          <td class="num">
            <b>{{ number(c.new ?? c.price) }}</b>
          </td>
          <td class="num quiet">
            <template v-if="c.old && c.new">
              {{ number(c.old) }} ({{ signedPct(100 * (c.new / c.old - 1)) }})
            </template>
          </td>
          <td class="num">{{ sized(c.record.living_area, 'sq ft') }}</td>
          <td class="num">{{ c.record.days_on_market ?? '—' }}</td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-if="told.changes.length >= 500" class="small quiet">The newest 500.</p>
  </template>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 10px;
}
.count {
  cursor: pointer;
  padding: 2px 10px;
  border: var(--line);
  border-radius: 12px;
}
.count[aria-pressed='true'] {
  background: rgb(var(--v-theme-mist));
  border-color: rgb(var(--v-theme-slate));
}
td a {
  color: inherit;
}
.note {
  margin-left: 8px;
  color: rgb(var(--v-theme-cedar));
}
</style>
