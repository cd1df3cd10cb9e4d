<script setup lang="ts">
import DateField from '@/shared/ui/fields/DateField.vue'
import { computed } from 'vue'
import { vFocus } from '@/shared/vFocus'
import type { SearchTools } from '../search/useSearch'

/** Limits of a day: from and until, both included, either left open. */
const props = defineProps<{ part: string; search: SearchTools }>()
const emit = defineEmits<{ taken: [ok: boolean] }>()
const limits = computed(() => props.search.criterion(props.part))
const take = (to: { low?: string | null; high?: string | null }) =>
  void props.search.take(props.search.withCriterion(props.part, to)).then((ok) => emit('taken', ok))
const iso = (value: unknown) => (typeof value === 'string' ? value : null)
</script>

<template>
  <div v-focus class="dates">
    <label>From <DateField :value="iso(limits?.low)" @date="take({ low: $event })" /></label>
    <label>Until <DateField :value="iso(limits?.high)" @date="take({ high: $event })" /></label>
  </div>
</template>

<style scoped>
.dates {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.dates :deep(input) {
  width: 100%;
  padding: 6px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
