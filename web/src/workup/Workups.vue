<script setup lang="ts">
import { ref } from 'vue'
import Clients from './clients/Clients.vue'
import Delivered from './clients/Delivered.vue'
import WorkupList from './WorkupList.vue'

const WAYS = { workups: 'Workups', clients: 'Clients', delivered: 'Delivered' }
const way = ref<keyof typeof WAYS>('workups')
</script>

<template>
  <div class="pa-8" style="max-width: 1080px">
    <div class="head">
      <h1>{{ WAYS[way] }}</h1>
      <div class="ways" role="group" aria-label="What is listed">
        <button
          v-for="(words, name) in WAYS"
          :key="name"
          type="button"
          :aria-pressed="way === name"
          @click="way = name"
        >
          {{ words }}
        </button>
      </div>
    </div>
    <WorkupList v-if="way === 'workups'" bare />
    <Clients v-else-if="way === 'clients'" />
    <Delivered v-else />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 24px;
  margin-bottom: 18px;
}
.ways {
  display: flex;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 5px;
  overflow: hidden;
}
.ways button {
  padding: 3px 12px;
  font-size: 12.5px;
  cursor: pointer;
}
.ways button[aria-pressed='true'] {
  background: rgb(var(--v-theme-surface));
  font-weight: 600;
}
</style>
