<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import type { SearchTools } from '../useSearch'

const props = defineProps<{ search: SearchTools }>()
const kinds = useQuery({
  queryKey: ['home-kinds'],
  queryFn: () => got(api.GET('/api/home-kinds')),
  staleTime: Infinity,
})
const taken = computed(() => props.search.draft.value?.home_kinds ?? [])
function toggle(kind: string) {
  const next = taken.value.includes(kind) ? taken.value.filter((k) => k !== kind) : [...taken.value, kind]
  void props.search.take({ ...props.search.copy(), home_kinds: next })
}
</script>

<template>
  <p v-for="(words, kind) in kinds.data.value ?? {}" :key="kind">
    <label>
      <input type="checkbox" :checked="taken.includes(String(kind))" @change="toggle(String(kind))" />
      {{ words }}
    </label>
  </p>
</template>
