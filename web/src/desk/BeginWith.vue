<script setup lang="ts">
/** Homes to begin with, for who has none in mind yet: what came on the market last, or sold last, of each kind. */
import PressArea from '@/shared/ui/PressArea.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { useLookup } from '@/shared/useLookup'

const newest = useQuery({
  queryKey: ['homes to begin with'],
  queryFn: () => got(api.GET('/api/homes-to-begin-with')),
  staleTime: Infinity,
})
const homes = computed(() => newest.data.value?.hits ?? [])
const { failed, open } = useLookup(ref(''))
</script>

<template>
  <section v-if="homes.length" class="mt-6" aria-label="Homes to begin with">
    <h2>Or begin with one of these</h2>
    <p v-if="failed" class="lamp" role="alert">{{ failed }}</p>
    <ul>
      <li v-for="home in homes" :key="home.key">
        <PressArea class="home" @click="open(home)">
          <b>{{ home.shown }}</b><span class="quiet small">{{ home.note }}</span>
        </PressArea>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 10px 0 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px;
}
.home {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 10px 14px;
  text-align: left;
  background: rgb(var(--v-theme-surface));
  border: var(--line);
  border-radius: 6px;
}
.home:hover {
  border-color: rgb(var(--v-theme-rain));
}
</style>
