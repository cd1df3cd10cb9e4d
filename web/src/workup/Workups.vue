<script setup lang="ts">
import { ref } from 'vue'
import Ways from '@/shared/Ways.vue'
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
      <Ways v-model="way" :ways="WAYS" label="What is listed" />
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
</style>
