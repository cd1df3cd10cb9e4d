<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, got } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import { useSession } from '@/session/useSession'
import BringFile from './BringFile.vue'
import { useBring, useRecords } from './useRecords'

const records = useRecords()
const route = useRoute()
const { bring, sending, fault } = useBring()
const { mayImport } = useSession()
const over = ref(false)
const waiting = useQuery({
  queryKey: ['incoming'],
  queryFn: () => got(api.GET('/api/records/incoming')),
  refetchInterval: 3000,
  enabled: mayImport,
})
const places = [
  { name: 'records', label: 'Sources' },
  { name: 'imports', label: 'Imports' },
  { name: 'conclusions', label: 'Conclusions' },
  { name: 'health', label: 'Health' },
]
function dropped(event: DragEvent) {
  over.value = false
  if (!mayImport.value) return
  void bring(event.dataTransfer?.files)
}
</script>

<template>
  <div class="records" @dragover.prevent="over = true" @dragleave.self="over = false" @drop.prevent="dropped">
    <header>
      <div>
        <h1>Records</h1>
        <p v-if="records.data.value" class="mt-1">
          <template v-if="records.data.value.through">
            Through <b>{{ day(records.data.value.through) }}</b>:
            <template v-for="(n, kind, i) in records.data.value.counts" :key="kind">
              <template v-if="n">{{ i ? ', ' : '' }}{{ number(n) }} {{ kind }}</template> </template
            >.
          </template>
          <template v-else>Nothing has been brought in yet. Start with a file of listings.</template>
        </p>
      </div>
      <p v-if="!mayImport" class="quiet small">
        Your account reads the records. A manager lets you bring files in.
      </p>
      <BringFile
        v-else
        class="bring"
        name="Bring in a file"
        title="Bring in a file"
        words="or drop it anywhere here: tables, workbooks, map files, photos as ZIP"
        :sending="sending"
        :over="over"
        @bring="bring"
      />
    </header>
    <p v-if="fault" class="lamp" role="alert">{{ fault }}</p>
    <p v-if="records.isError.value" class="lamp" role="alert">{{ records.error.value?.message }}</p>
    <p v-for="file in waiting.data.value ?? []" :key="file.file_id" class="waiting small">
      <template v-if="route.params.fileId !== file.file_id && file.stage !== 'done'">
        {{ file.name }}: {{ file.stage }}{{ file.rows ? `, ${number(file.rows)} rows` : '' }} ·
        <router-link :to="{ name: 'incoming', params: { fileId: file.file_id } }">go on with it</router-link>
      </template>
    </p>
    <nav aria-label="Records">
      <router-link
        v-for="p in places"
        :key="p.name"
        :to="{ name: p.name }"
        :class="{ at: route.name === p.name }"
      >
        {{ p.label }}
      </router-link>
    </nav>
    <router-view />
  </div>
</template>

<style scoped>
.records {
  height: 100%;
  overflow: auto;
  padding: 22px 32px 40px;
  max-width: 1320px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 32px;
}
.bring {
  flex: none;
}
.lamp,
.waiting:not(:empty) {
  margin-top: 12px;
}
nav {
  display: flex;
  gap: 22px;
  margin: 18px 0 16px;
  border-bottom: var(--line);
}
nav a {
  padding: 6px 0 8px;
  color: rgb(var(--v-theme-quiet));
  text-decoration: none;
}
nav a.at {
  color: rgb(var(--v-theme-on-surface));
  font-weight: 600;
  box-shadow: inset 0 -2px rgb(var(--v-theme-slate, var(--v-theme-on-surface)));
}
</style>
