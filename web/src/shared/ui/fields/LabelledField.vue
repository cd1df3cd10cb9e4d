<script setup lang="ts">
/** A line of text whose label stands in its frame. */
const text = defineModel<string>()
</script>

<template>
  <v-text-field v-model="text" hide-details="auto" />
</template>
