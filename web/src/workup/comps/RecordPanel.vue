<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight, mdiClose } from '@mdi/js'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useKeys } from '@/shared/keys'
import { api, got } from '@/shared/api/client'
import { baths, day, money, number, perSqft, signedPct } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { useWorkup, type Candidate } from '../useWorkup'

const props = defineProps<{ row: Candidate }>()
const emit = defineEmits<{ close: []; next: [by: number] }>()
const { id: workup, open, choiceOf } = useWorkup()
const at = ref(1)
const id = computed(() => props.row.listing_id)
watch(id, () => (at.value = 1))
const record = useQuery({
  queryKey: ['listing', id],
  queryFn: () => got(api.GET('/api/listings/{listing_id}', { params: { path: { listing_id: id.value } } })),
  enabled: computed(() => !id.value.startsWith('deed:')),
})
const parts = useQuery({
  queryKey: ['likeness', workup, id, computed(() => open.data.value?.revision)],
  queryFn: () =>
    got(
      api.GET('/api/workups/{workup_id}/likeness/{listing_id}', {
        params: { path: { workup_id: workup.value, listing_id: id.value } },
      }),
    ),
})
const pictures = computed(() => record.data.value?.pictures ?? [])
const src = (n: number) => `/api/listings/${encodeURIComponent(id.value)}/pictures/${n}`
function turn(by: number) {
  const n = pictures.value.length
  if (n) at.value = ((at.value - 1 + by + n) % n) + 1
}
const facts = computed(() => {
  const f = props.row.facts
  const amount = (name: string, unit = '') =>
    typeof f[name] === 'number' ? `${number(f[name] as number)}${unit}` : null
  return [
    ['Bedrooms', amount('bedrooms_total')],
    ['Baths', f.bathrooms_full === undefined ? null : baths(f.bathrooms_full, f.bathrooms_half)],
    ['Area', amount('living_area', ' sq ft')],
    ['Lot', amount('lot_size_square_feet', ' sq ft')],
    ['Built', f.year_built ?? null],
    ['Garage', amount('garage_spaces')],
    ['Condition', f.property_condition ?? null],
    ['Style', f.architectural_style ?? null],
    ['Heating', f.heating ?? null],
    ['Subdivision', f.subdivision_name ?? null],
  ].filter((x) => x[1] !== null)
})

function key(event: KeyboardEvent) {
  if (event.key === 'Escape') emit('close')
  else if (event.key === 'ArrowRight') turn(1)
  else if (event.key === 'ArrowLeft') turn(-1)
  else if (event.key === 'ArrowDown') emit('next', 1)
  else if (event.key === 'ArrowUp') emit('next', -1)
  else return
  event.preventDefault()
  event.stopPropagation()
}
useKeys(key, true)
</script>

<template>
  <aside class="panel" :aria-label="`Record of ${row.address || row.listing_id}`">
    <header>
      <Mark :kind="row.kind" :choice="choiceOf(row.listing_id)" />
      <div class="name">
        <h2>{{ row.address || row.listing_id }}</h2>
        <p class="quiet small">
          {{ row.kind.replace('_', ' ') }} {{ day(row.date) }} · {{ row.distance_miles.toFixed(2) }} mi
        </p>
      </div>
      <p class="price">
        <b>{{ money(row.price) }}</b>
        <span class="quiet small">{{ perSqft(row.price_per_sqft) }} per sq ft</span>
      </p>
      <v-btn :icon="mdiClose" size="small" aria-label="Close the record" @click="emit('close')" />
    </header>
    <div class="body">
      <div class="photos">
        <template v-if="pictures.length">
          <img class="large" :src="src(at)" :alt="pictures[at - 1]" />
          <div class="turn">
            <v-btn :icon="mdiChevronLeft" size="small" aria-label="Picture before" @click="turn(-1)" />
            <span>{{ pictures[at - 1] }} · {{ at }} of {{ pictures.length }}</span>
            <v-btn :icon="mdiChevronRight" size="small" aria-label="Next picture" @click="turn(1)" />
          </div>
          <div class="small-ones">
            <button
              v-for="(caption, i) in pictures"
              :key="i"
              type="button"
              :class="{ at: i + 1 === at }"
              @click="at = i + 1"
            >
              <img :src="src(i + 1)" :alt="caption" />
            </button>
          </div>
        </template>
        <p v-else class="quiet none">There are no pictures of this home.</p>
      </div>
      <div class="words">
        <p v-if="row.flags.length" class="lamp mb-2">{{ row.flags.join(', ') }}</p>
        <p class="mb-3">
          <b>Against your home:</b> {{ row.differences.join(', ') || 'alike in all that is recorded' }}.
        </p>
        <table class="plain">
          <tbody>
            <tr v-for="[label, value] in facts" :key="String(label)">
              <td class="quiet">{{ label }}</td>
              <td class="num">{{ value }}</td>
            </tr>
          </tbody>
        </table>
        <details class="mt-3 parts">
          <summary>
            {{ Math.round(row.likeness) }} of 100 alike<span v-if="row.known_share < 0.995" class="quiet"
              >, {{ Math.round(100 * row.known_share) }} % of it known</span
            >
          </summary>
          <p v-for="p in parts.data.value ?? []" :key="p.field" class="part small">
            <span :class="{ quiet: p.likeness === null }">{{ p.label }}</span>
            <i class="bar" :style="{ width: `${Math.max(4, Math.min(150, 420 * p.weight))}px` }">
              <i :style="{ width: `${100 * (p.likeness ?? 0)}%` }" />
            </i>
            <span class="quiet">{{
              p.likeness === null ? 'unknown' : `${Math.round(100 * p.likeness)} %`
            }}</span>
          </p>
          <p class="quiet small">A bar is as long as the part weighs, and filled as far as it is alike.</p>
        </details>
        <p v-if="record.data.value?.remarks" class="mt-3">{{ record.data.value.remarks }}</p>
        <template v-if="record.data.value?.history.length">
          <h2 class="mt-4 mb-1">What happened</h2>
          <p v-for="(e, i) in record.data.value.history" :key="i" class="event">
            <span class="quiet">{{ day(e.date) }}</span>
            <span>{{ e.what }}</span>
            <span class="num">
              {{ Number(e.to) ? money(Number(e.to)) : (e.to ?? '') }}
              <b v-if="e.change_pct !== null">{{ signedPct(e.change_pct) }}</b>
            </span>
          </p>
        </template>
      </div>
    </div>
    <footer class="quiet small">← → pictures · ↑ ↓ homes · K keep · X set aside · Esc close</footer>
  </aside>
</template>

<style scoped>
.parts summary {
  cursor: pointer;
  font-weight: 600;
  margin-bottom: 4px;
}
.part {
  display: grid;
  grid-template-columns: 130px 1fr 56px;
  align-items: center;
  gap: 8px;
}
.bar {
  display: block;
  height: 8px;
  border-radius: 2px;
  background: rgb(var(--v-theme-mist));
  outline: 1px solid rgb(var(--v-theme-line));
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 2px;
  background: rgb(var(--v-theme-rain));
}
.panel {
  position: absolute;
  inset: 0;
  z-index: 5;
  background: rgb(var(--v-theme-surface));
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 14px;
  border-bottom: 1px solid rgb(var(--v-theme-line));
}
.name {
  flex: 1;
}
.price {
  text-align: right;
  line-height: 1.2;
}
.price b {
  display: block;
  font-size: 19px;
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(260px, 1fr);
  min-height: 0;
}
.photos {
  padding: 12px 14px;
  overflow: auto;
}
.large {
  width: 100%;
  max-height: 246px;
  object-fit: cover;
  display: block;
  border-radius: 4px;
}
.turn {
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 8px;
}
.small-ones {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.small-ones button {
  width: 84px;
  cursor: pointer;
  border: 2px solid transparent;
  border-radius: 4px;
  overflow: hidden;
}
.small-ones .at {
  border-color: rgb(var(--v-theme-slate));
}
.small-ones img {
  width: 100%;
  display: block;
}
.words {
  padding: 12px 16px;
  overflow: auto;
}
.event {
  display: grid;
  grid-template-columns: 96px 1fr auto;
  gap: 8px;
  padding: 2px 0;
}
.none {
  padding: 60px 0;
  text-align: center;
}
footer {
  padding: 5px 16px;
  border-top: 1px solid rgb(var(--v-theme-line));
}
</style>
