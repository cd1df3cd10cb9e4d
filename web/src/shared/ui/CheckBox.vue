<script setup lang="ts">
/** Yes or no, within a label that says what. */
const on = defineModel<boolean>()
</script>

<template>
  <input v-model="on" type="checkbox" />
</template>
