<script setup lang="ts">
import WorkupList from './WorkupList.vue'
</script>

<template>
  <div class="pa-8" style="max-width: 980px">
    <h1 class="mb-4">Workups</h1>
    <WorkupList />
  </div>
</template>
