<script setup lang="ts">
import { useHomeKinds } from '@/shared/useFields'
import CheckBox from '@/shared/ui/CheckBox.vue'
import { computed } from 'vue'
import type { SearchTools } from '../search/useSearch'

const props = defineProps<{ search: SearchTools }>()
const kinds = useHomeKinds()
const taken = computed(() => props.search.draft.value?.home_kinds ?? [])
function toggle(kind: string) {
  const next = taken.value.includes(kind) ? taken.value.filter((k) => k !== kind) : [...taken.value, kind]
  void props.search.take({ ...props.search.copy(), home_kinds: next })
}
</script>

<template>
  <p v-for="(words, kind) in kinds.data.value ?? {}" :key="kind">
    <label>
      <CheckBox :model-value="taken.includes(String(kind))" @update:model-value="toggle(String(kind))" />
      {{ words }}
    </label>
  </p>
</template>
