<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { number } from '@/shared/format'
import { useFinding, type Candidate } from '../useFinding'

/** How alike a home is, part by part: a bar is as long as the part weighs, and filled as far as it is alike. */
const props = defineProps<{ home: Candidate }>()
const { stamp, ask } = useFinding()
const listing = computed(() => props.home.listing_id)
const parts = useQuery({
  queryKey: ['likeness', stamp, listing],
  queryFn: () => ask.likeness(listing.value),
})
</script>

<template>
  <details class="parts">
    <summary>
      {{ Math.round(home.likeness) }} of 100 alike<span v-if="home.known_share < 0.995" class="quiet"
        >, {{ Math.round(100 * home.known_share) }} % of it known</span
      >
    </summary>
    <p v-for="p in parts.data.value ?? []" :key="p.field" class="part small">
      <span :class="{ quiet: p.likeness === null }">{{ p.label }}</span>
      <i class="bar" :style="{ width: `${Math.max(4, Math.min(150, 420 * p.weight))}px` }">
        <i :style="{ width: `${100 * (p.likeness ?? 0)}%` }" />
      </i>
      <span class="quiet">{{
        p.likeness === null ? 'unknown' : `${Math.round(100 * p.likeness)} % × ${number(100 * p.weight, 1)}`
      }}</span>
    </p>
    <p class="quiet small">
      A bar is as long as the part weighs, and filled as far as it is alike. The parts that are known, each
      times its weight, over the weights of these: {{ Math.round(home.likeness) }} of 100.
    </p>
  </details>
</template>

<style scoped>
.parts summary {
  cursor: pointer;
  font-weight: 600;
  margin-bottom: 4px;
}
.part {
  display: grid;
  grid-template-columns: 130px 1fr 96px;
  align-items: center;
  gap: 8px;
}
.bar {
  display: block;
  height: 8px;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-mist));
  outline: var(--line);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-rain));
}
</style>
