<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { number } from '@/shared/format'
import { useWorkup } from '../../useWorkup'
import type { SearchTools } from '../useSearch'

const props = defineProps<{ part: string; search: SearchTools; mine?: string }>()
const { id } = useWorkup()
const spread = useQuery({
  queryKey: ['spread', id, () => props.part],
  queryFn: () =>
    got(
      api.GET('/api/workups/{workup_id}/spread', {
        params: { path: { workup_id: id.value }, query: { field: props.part } },
      }),
    ),
})
const taken = computed(() => props.search.criterion(props.part)?.words ?? [])
const words = computed(() => {
  const counts = spread.data.value?.words ?? {}
  return [...new Set([...taken.value, ...Object.keys(counts)])].map((word) => ({
    word,
    n: counts[word] ?? 0,
  }))
})
function toggle(word: string) {
  const next = taken.value.includes(word) ? taken.value.filter((w) => w !== word) : [...taken.value, word]
  void props.search.take(props.search.withCriterion(props.part, { words: next, low: null, high: null }))
}
</script>

<template>
  <ul class="words">
    <li v-for="w in words" :key="w.word">
      <label>
        <input type="checkbox" :checked="taken.includes(w.word)" @change="toggle(w.word)" />
        <span :class="{ cedar: w.word === mine }">{{ w.word }}</span>
        <b>{{ number(w.n) }}</b>
      </label>
    </li>
    <li v-if="spread.isSuccess.value && !words.length" class="quiet">No home around here tells it.</li>
  </ul>
</template>

<style scoped>
.words {
  list-style: none;
  padding: 0;
  max-height: 260px;
  overflow: auto;
}
label {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  align-items: center;
  gap: 4px;
  padding: 2px 0;
}
b {
  font-weight: 500;
}
</style>
