<script setup lang="ts">
import CommandField from '@/shared/ui/CommandField.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import PinnedViews from './PinnedViews.vue'
import WorkupList from '@/workup/WorkupList.vue'

const records = useQuery({ queryKey: ['records'], queryFn: () => got(api.GET('/api/records')) })
/** Files of the watched folder that wait for a person: their heads changed, or they could not be read. */
const held = computed(() => (records.data.value?.inbox.files ?? []).filter((f) => f.held).slice(0, 3))
</script>

<template>
  <div class="desk">
    <h1>Which home?</h1>
    <CommandField large />
    <p class="small quiet around">
      Only a quick look? Press “around” beside a home, or Shift and Enter. Or
      <router-link class="link" :to="{ name: 'around' }">search without a home</router-link>, or
      <router-link class="link" :to="{ name: 'point' }"
        >point at it on the map, or enter it by hand</router-link
      >.
    </p>
    <WorkupList class="mt-8" :limit="8" />
    <PinnedViews />
    <p v-if="records.isError.value" class="lamp mt-6" role="alert">{{ records.error.value?.message }}</p>
    <p v-for="f in held" :key="f.source + f.name" class="lamp small mt-3">
      {{ f.source }}/{{ f.name }} waits: {{ f.outcome }}.
      <router-link class="link" :to="{ name: 'records' }">Look at it</router-link>
    </p>
    <p v-if="records.data.value" class="fresh quiet">
      <template v-if="records.data.value.through">
        Records run through {{ day(records.data.value.through) }}:
        {{ number(records.data.value.counts.listings) }} listings,
        {{ number(records.data.value.counts.parcels) }} parcels,
        {{ number(records.data.value.counts.transfers) }} transfers.
      </template>
      <template v-else
        >There are no records yet. Bring in a file with <code>rain-porch import FILE</code>.</template
      >
    </p>
  </div>
</template>

<style scoped>
.desk {
  max-width: 860px;
  margin: 0 auto;
  padding: 72px 32px 40px;
}
h1 {
  font-size: var(--figure);
  margin-bottom: 14px;
}
.around {
  margin-top: 6px;
}
.fresh {
  margin-top: 28px;
}
</style>
