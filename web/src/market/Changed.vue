<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import type { View } from './useView'

/** What happened in the view's first place since a day: the newest first, each kind switched on and off. */
const props = defineProps<{ view: View; through: string }>()
const since = ref(weekBefore(props.through))
const only = ref<string | null>(null)
function weekBefore(text: string): string {
  const d = new Date(`${text}T00:00:00Z`)
  d.setUTCDate(d.getUTCDate() - 7)
  return d.toISOString().slice(0, 10)
}
const told = useQuery({
  queryKey: ['changes', computed(() => [props.view, since.value])],
  queryFn: () => got(api.POST('/api/market/changes', { body: { view: props.view, since: since.value } })),
  enabled: computed(() => /^\d{4}-\d\d-\d\d$/.test(since.value)),
  retry: false,
})
const shown = computed(() =>
  (told.data.value?.changes ?? []).filter((c) => only.value === null || c.what === only.value),
)
</script>

<template>
  <div class="sheet changed">
    <p class="top">
      <label
        >What changed since <input v-model="since" type="date" :max="through" aria-label="Since"
      /></label>
      <template v-if="told.data.value">
        <button
          v-for="(n, what) in told.data.value.counts"
          :key="what"
          type="button"
          class="count"
          :aria-pressed="only === what"
          @click="only = only === what ? null : String(what)"
        >
          <b>{{ number(n) }}</b> {{ told.data.value.labels[what]!.toLowerCase() }}
        </button>
      </template>
    </p>
    <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
    <p v-else-if="told.data.value && !shown.length" class="quiet">Nothing happened here since that day.</p>
    <table v-else-if="told.data.value" class="plain" aria-label="What changed">
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
          <td>{{ told.data.value.labels[c.what] }}</td>
          <td>
            <Mark :kind="c.record.kind" />
            <router-link :to="{ name: 'around', query: { kind: 'listing', key: c.record.listing_id } }">{{
              c.record.address || c.record.listing_id
            }}</router-link>
          </td>
          <td class="num">
            <b>{{ number(c.new ?? c.record.price) }}</b>
          </td>
          <td class="num quiet">
            <template v-if="c.old && c.new">
              {{ number(c.old) }} ({{ c.new > c.old ? '+' : '−'
              }}{{ Math.abs(100 * (c.new / c.old - 1)).toFixed(1) }} %)
            </template>
          </td>
          <td class="num">{{ number(c.record.living_area) }}</td>
          <td class="num">{{ c.record.days_on_market ?? '—' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="quiet">Looking …</p>
  </div>
</template>

<style scoped>
.changed {
  overflow: auto;
  padding: 14px 18px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin-bottom: 10px;
}
input {
  font-weight: 600;
  background: rgb(var(--v-theme-mist));
  border-bottom: 2px solid rgb(var(--v-theme-rain));
  color: inherit;
}
.count {
  cursor: pointer;
  padding: 2px 10px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 12px;
}
.count[aria-pressed='true'] {
  background: rgb(var(--v-theme-mist));
  border-color: rgb(var(--v-theme-slate));
}
td a {
  color: inherit;
}
</style>
