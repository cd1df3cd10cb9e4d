<script setup lang="ts">
/** A handle on a row of steps; `name` says what it sets. */
defineProps<{ at: number; steps: number; name: string }>()
const emit = defineEmits<{ slid: [at: number] }>()
</script>

<template>
  <v-slider
    :model-value="at"
    :max="steps - 1"
    step="1"
    color="rain"
    hide-details
    :aria-label="name"
    @update:model-value="emit('slid', $event)"
  />
</template>
