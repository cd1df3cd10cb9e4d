<script setup lang="ts">
import { computed } from 'vue'
import { vFocus } from '@/shared/vFocus'
import DateEnds from './DateEnds.vue'
import type { SearchTools } from '../search/useSearch'

/** Limits of a day: from and until, both included, either left open. */
const props = defineProps<{ part: string; search: SearchTools }>()
const emit = defineEmits<{ taken: [ok: boolean] }>()
const limits = computed(() => props.search.criterion(props.part))
const take = (low: string | null, high: string | null) =>
  void props.search
    .take(props.search.withCriterion(props.part, { low, high }))
    .then((ok) => emit('taken', ok))
const iso = (value: unknown) => (typeof value === 'string' ? value : null)
</script>

<template>
  <DateEnds
    v-focus
    class="dates"
    :low="iso(limits?.low)"
    :high="iso(limits?.high)"
    :names="['From', 'Until']"
    @dates="take"
  >
    <template #low>From</template>
    <template #high>Until</template>
  </DateEnds>
</template>

<style scoped>
.dates :deep(input) {
  width: 100%;
  padding: 6px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
