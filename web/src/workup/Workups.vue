<script setup lang="ts">
import { ref } from 'vue'
import CheckBox from '@/shared/ui/CheckBox.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useSession } from '@/session/useSession'
import { useRested } from '@/shared/useRested'
import Ways from '@/shared/Ways.vue'
import Clients from './clients/Clients.vue'
import Delivered from './clients/Delivered.vue'
import Outcomes from './Outcomes.vue'
import WorkupList from './WorkupList.vue'

const WAYS = { workups: 'Workups', clients: 'Clients', delivered: 'Delivered', outcomes: 'What came of it' }
const way = ref<keyof typeof WAYS>('workups')
const { session, isManager } = useSession()
const every = ref(false)
const archived = ref(false)
const words = ref('')
const { rested: sought } = useRested(words)
</script>

<template>
  <div class="pa-8" style="max-width: 1080px">
    <div class="head framed">
      <h1>{{ WAYS[way] }}</h1>
      <Ways v-model="way" :ways="WAYS" label="What is listed" />
      <TextField
        v-if="way === 'workups'"
        v-model="words"
        type="search"
        class="find"
        aria-label="Find a workup"
        placeholder="Address, title or client"
        maxlength="200"
      />
      <label v-if="way === 'workups'" class="every"><CheckBox v-model="archived" /> put away</label>
      <label v-if="way === 'workups' && isManager && !session.data.value?.by_itself" class="every">
        <CheckBox v-model="every" /> of the whole office
      </label>
    </div>
    <WorkupList v-if="way === 'workups'" bare :every="every" :archived="archived" :words="sought" />
    <Outcomes v-else-if="way === 'outcomes'" />
    <Clients v-else-if="way === 'clients'" />
    <Delivered v-else />
  </div>
</template>

<style scoped>
.every {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.find {
  width: 230px;
  margin-left: auto;
}
.head {
  display: flex;
  align-items: center;
  gap: 24px;
  margin-bottom: 18px;
}
</style>
