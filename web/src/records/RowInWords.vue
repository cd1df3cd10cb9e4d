<script setup lang="ts">
/** A row in one line, as long as there is room; pressed, all of it. */
defineProps<{ words: string }>()
</script>

<template>
  <details class="small quiet">
    <summary title="Press to read all of it">{{ words }}</summary>
  </details>
</template>

<style scoped>
summary {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
details:not([open]) summary:hover {
  text-decoration: underline dotted;
}
details[open] summary {
  white-space: normal;
}
</style>
