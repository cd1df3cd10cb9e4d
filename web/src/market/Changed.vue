<script setup lang="ts">
import DateField from '@/shared/ui/fields/DateField.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import ChangesTable from '@/shared/ChangesTable.vue'
import type { View } from './useView'

/** What happened in the view's first place since a day. */
const props = defineProps<{ view: View; through: string }>()
const since = ref(weekBefore(props.through))
function weekBefore(text: string): string {
  const d = new Date(`${text}T00:00:00Z`)
  d.setUTCDate(d.getUTCDate() - 7)
  return d.toISOString().slice(0, 10)
}
const told = useQuery({
  queryKey: ['changes', computed(() => [props.view, since.value])],
  queryFn: () => got(api.POST('/api/market/changes', { body: { view: props.view, since: since.value } })),
  enabled: computed(() => /^\d{4}-\d\d-\d\d$/.test(since.value)),
  retry: false,
})
</script>

<template>
  <div class="sheet changed">
    <p class="top">
      <label
        >What changed since
        <DateField :value="since" aria-label="Since" @date="since = $event ?? weekBefore(through)"
      /></label>
    </p>
    <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
    <ChangesTable v-else-if="told.data.value" :told="told.data.value" />
    <p v-else class="quiet">Looking …</p>
  </div>
</template>

<style scoped>
.changed {
  overflow: auto;
  padding: 14px 18px;
}
.top {
  margin-bottom: 10px;
}
input {
  font-weight: 600;
  background: rgb(var(--v-theme-mist));
  border-bottom: 2px solid rgb(var(--v-theme-rain));
  color: inherit;
}
</style>
