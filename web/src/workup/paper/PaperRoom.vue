<script setup lang="ts">
import { mdiDownload } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { useWorkup } from '../useWorkup'

const { id, open, state, send } = useWorkup()
const at = ref(0)
const NAMES = ['Summary', 'The comps', 'The grid']
const pictures = computed(() =>
  NAMES.map((_, i) => `/api/workups/${id.value}/pages/${i + 1}.png?revision=${open.data.value?.revision}`),
)
const client = ref('')
watch(
  () => state.value?.client,
  (now) => (client.value = now ?? ''),
  { immediate: true },
)
</script>

<template>
  <div class="paper">
    <nav class="pages" aria-label="Pages of the report">
      <button
        v-for="(src, i) in pictures"
        :key="i"
        type="button"
        :class="{ at: i === at }"
        :aria-current="i === at"
        @click="at = i"
      >
        <img :src="src" alt="" />
        <span>{{ i + 1 }} {{ NAMES[i] ?? '' }}</span>
      </button>
    </nav>
    <div class="page">
      <img v-if="pictures[at]" :src="pictures[at]" :alt="`Page ${at + 1}: ${NAMES[at] ?? ''}`" />
    </div>
    <aside class="side">
      <h2 class="mb-3">The report</h2>
      <v-text-field
        v-model="client"
        label="Prepared for"
        maxlength="200"
        @change="send({ change: 'set_client', client })"
      />
      <v-btn
        class="mt-5"
        variant="flat"
        color="primary"
        block
        :prepend-icon="mdiDownload"
        :href="`/api/workups/${id}/report.pdf`"
        download
      >
        Download PDF
      </v-btn>
      <p class="quiet small mt-4">
        A comparative market analysis, not an appraisal. The page says so, with the effective date and the
        search.
      </p>
    </aside>
  </div>
</template>

<style scoped>
.paper {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 260px;
  height: 100%;
  background: rgb(var(--v-theme-mist));
}
.pages {
  overflow: auto;
  padding: 16px 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.pages button {
  cursor: pointer;
  font-size: 12px;
  color: rgb(var(--v-theme-quiet));
}
.pages img {
  width: 100%;
  background: #fff;
  border: 1px solid rgb(var(--v-theme-line));
}
.pages .at {
  color: rgb(var(--v-theme-slate));
  font-weight: 600;
}
.pages .at img {
  outline: 2px solid rgb(var(--v-theme-slate));
}
.page {
  overflow: auto;
  padding: 16px;
  text-align: center;
}
.page img {
  width: 100%;
  max-width: 760px;
  background: #fff;
  box-shadow: 0 3px 18px rgba(20, 40, 50, 0.16);
}
.side {
  padding: 18px;
  background: rgb(var(--v-theme-surface));
  border-left: 1px solid rgb(var(--v-theme-line));
}
</style>
