<script setup lang="ts">
import LabelledField from '@/shared/ui/fields/LabelledField.vue'
import { vFocus } from '@/shared/vFocus'
import { ref } from 'vue'
import type { SearchTools } from '../search/useSearch'

const props = defineProps<{ part: string; search: SearchTools }>()
const text = ref((props.search.criterion(props.part)?.words ?? []).join(', '))
function take() {
  const words = text.value
    .split(',')
    .map((w) => w.trim())
    .filter(Boolean)
  if (words.length) void props.search.take(props.search.withCriterion(props.part, { words }))
}
</script>

<template>
  <LabelledField
    v-model="text"
    v-focus
    label="Words to look for, any of them"
    placeholder="sunroom, new roof"
    @change="take"
  />
</template>
