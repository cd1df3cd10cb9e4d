<script setup lang="ts">
/** Says in the head that newer records are being read while all figures still stand on those of before; asks anew once they are here. */
import { api, got } from '@/shared/api/client'
import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { moment } from '@/shared/format'
import { useRecordsChanged } from './useRecords'

const changed = useRecordsChanged()
const standing = useQuery({
  queryKey: ['records standing'],
  queryFn: () => got(api.GET('/api/records/standing')),
  refetchInterval: (query) => (query.state.data?.is_behind ? 1500 : 5000),
  staleTime: 0,
  retry: false,
})
watch(
  () => standing.data.value?.version,
  (now, before) => {
    if (before !== undefined && now !== undefined && now !== before) void changed()
  },
)
const through = computed(() => {
  const at = standing.data.value
  return at?.newest_import && at.taken_in
    ? `through ${at.newest_import}, ${moment(at.taken_in)}`
    : 'of before'
})
</script>

<template>
  <p v-if="standing.data.value?.is_behind" class="standing" role="status">
    <v-progress-circular indeterminate :size="14" :width="2" aria-hidden="true" />
    Newer records are being read. Until they are here, figures stand on those {{ through }}.
  </p>
</template>

<style scoped>
.standing {
  margin: 0 0 0 16px;
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
  min-width: 0;
}
</style>
