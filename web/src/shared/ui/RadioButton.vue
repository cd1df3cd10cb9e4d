<script setup lang="ts">
/** One of a few that all stand in sight, within a label that says which. */
defineProps<{ on: boolean; name: string }>()
const emit = defineEmits<{ taken: [] }>()
</script>

<template>
  <input type="radio" :name="name" :checked="on" @change="emit('taken')" />
</template>
