<script setup lang="ts">
/** Two handles on a scale; `name` says what they limit. */
defineProps<{ at: [number, number]; ends: [number, number]; step: number; name: string }>()
const emit = defineEmits<{ slid: [at: [number, number]] }>()
</script>

<template>
  <v-range-slider
    :model-value="at"
    :min="ends[0]"
    :max="ends[1]"
    :step="step"
    color="rain"
    hide-details
    :aria-label="name"
    @update:model-value="emit('slid', $event as [number, number])"
  />
</template>
