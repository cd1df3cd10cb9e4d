<script setup lang="ts">
import HomeCard from '@/shared/map/HomeCard.vue'
import { useFinding, type Candidate } from './useFinding'
import Choose from './Choose.vue'

/** The homes at one place of the map, each to be opened and chosen there. */
defineProps<{ homes: Candidate[] }>()
defineEmits<{ open: [key: string] }>()
const { choiceOf } = useFinding()
const MOST = 40
</script>

<template>
  <div>
    <p v-if="homes.length > 1" class="quiet">{{ homes.length }} homes stand here</p>
    <div v-for="h in homes.slice(0, MOST)" :key="h.listing_id" class="home">
      <HomeCard :home="h" :choice="choiceOf(h.listing_id)" opens @open="$emit('open', h.listing_id)" />
      <Choose wide :home="h" />
    </div>
    <p v-if="homes.length > MOST" class="quiet">and {{ homes.length - MOST }} more: see the table</p>
  </div>
</template>

<style scoped>
.home + .home {
  margin-top: 8px;
  padding-top: 6px;
  border-top: var(--line);
}
</style>
