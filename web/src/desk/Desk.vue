<script setup lang="ts">
import CommandField from '@/shared/ui/fields/CommandField.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import { useBring } from '@/records/useRecords'
import { useSession } from '@/session/useSession'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useWalk } from '@/walk/useWalk'
import BeginWith from './BeginWith.vue'
import FirstFile from './FirstFile.vue'
import PinnedViews from './PinnedViews.vue'
import WatchedNews from './WatchedNews.vue'
import WorkupList from '@/workup/WorkupList.vue'

const records = useQuery({ queryKey: ['records'], queryFn: () => got(api.GET('/api/records')) })
const FEW = 3
const walk = useWalk()
const { mayImport } = useSession()
/** Files of the watched folder that wait for a person: their heads changed, or they could not be read. */
const isEmpty = computed(() => {
  const counts = records.data.value?.counts
  return !!counts && Object.values(counts).every((n) => !n)
})
const workups = useQuery({
  queryKey: ['workups', [false, false, '']],
  queryFn: () => got(api.GET('/api/workups', { params: { query: {} } })),
  staleTime: 0,
})
const hasFew = computed(() => !isEmpty.value && (workups.data.value?.length ?? FEW) < FEW)
const { bring, sending, fault } = useBring()
const over = ref(false)
function dropped(event: DragEvent) {
  over.value = false
  if (isEmpty.value && mayImport.value) void bring(event.dataTransfer?.files)
}
const held = computed(() => (records.data.value?.inbox.files ?? []).filter((f) => f.held).slice(0, 3))
</script>

<template>
  <div class="desk" @dragover.prevent="over = true" @dragleave.self="over = false" @drop.prevent="dropped">
    <h1>Which home?</h1>
    <CommandField large />
    <FirstFile v-if="isEmpty" :sending="sending" :fault="fault" :over="over" @bring="bring" />
    <p v-else class="small quiet around">
      Only a quick look? Press “around” beside a home, or Shift and Enter. Or
      <router-link class="link" :to="{ name: 'around' }">search without a home</router-link>, or
      <router-link class="link" :to="{ name: 'point' }"
        >point at it on the map, or enter it by hand</router-link
      >. New here?
      <LinkButton @click="walk.go(walk.left.value)">{{
        walk.left.value
          ? `Go on with step ${walk.left.value + 1} of the job`
          : 'Walk through the job in nine steps'
      }}</LinkButton>
    </p>
    <WorkupList v-if="!isEmpty" class="mt-8" :limit="8" />
    <WatchedNews v-if="!isEmpty" />
    <BeginWith v-if="hasFew" />
    <PinnedViews />
    <p v-if="records.isError.value" class="lamp mt-6" role="alert">{{ records.error.value?.message }}</p>
    <p v-for="f in held" :key="f.source + f.name" class="lamp small mt-3">
      {{ f.source }}/{{ f.name }} waits: {{ f.outcome }}.
      <router-link class="link" :to="{ name: 'records' }">Look at it</router-link>
    </p>
    <p v-if="records.data.value?.through" class="fresh quiet">
      Records run through {{ day(records.data.value.through) }}:
      {{ number(records.data.value.counts.listings) }} listings,
      {{ number(records.data.value.counts.parcels) }} parcels,
      {{ number(records.data.value.counts.transfers) }} transfers.
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
