<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import { mdiDownload, mdiSend } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { useWorkup } from '../useWorkup'
import LinkButton from '@/shared/ui/LinkButton.vue'
import AgentCard from './AgentCard.vue'
import Appointment from './Appointment.vue'
import HandOver from './HandOver.vue'
import OwnPages from './OwnPages.vue'
import PageSheets from './PageSheets.vue'
import PageStrip from './PageStrip.vue'
import ReportSettings from './ReportSettings.vue'
import { providePaper } from './usePaper'

const { id, saving } = useWorkup()
const { on, told, move } = providePaper()
const handing = ref(false)
const meeting = ref(false)
const at = ref(0)
watch(on, (pages) => (at.value = Math.min(at.value, pages.length - 1)))
const current = computed(() => on.value[at.value])
</script>

<template>
  <div class="paper">
    <PageStrip v-model="at" />
    <PageSheets v-if="current" :key="current" :page="current" :number="at + 1" />
    <aside class="side">
      <p v-for="note in told.data.value?.notes ?? []" :key="note" class="small note" role="status">
        {{ note }}
      </p>
      <ReportSettings :current="current" />
      <OwnPages @added="move($event, on.length)" />
      <AgentCard />
      <ActButton class="mt-4 hand-over" block :icon="mdiSend" strong @click="handing = true">
        Hand it over
      </ActButton>
      <ActButton
        class="mt-2"
        block
        :icon="mdiDownload"
        :href="served(`/api/workups/${id}/report.pdf`)"
        :disabled="saving"
        download
      >
        Download PDF
      </ActButton>
      <p class="small mt-2 others">
        or as
        <a class="link" :href="served(`/api/workups/${id}/report.html`)" download>web page</a>,
        <a class="link" :href="served(`/api/workups/${id}/report.xlsx`)" download>workbook</a>.
        <LinkButton @click="meeting = true">A calendar note</LinkButton> of the appointment
      </p>
      <p class="quiet small mt-3">
        A comparative market analysis, not an appraisal. Every page says so. No listing agent’s and no owner’s
        name comes into it.
      </p>
    </aside>
    <HandOver v-if="handing" @close="handing = false" />
    <Appointment v-if="meeting" :id="id" @close="meeting = false" />
  </div>
</template>

<style scoped>
.paper {
  display: grid;
  grid-template-columns: 158px minmax(0, 1fr) 268px;
  height: 100%;
  background: rgb(var(--v-theme-mist));
}
.note {
  border-left: 3px solid rgb(var(--v-theme-lamp));
  padding-left: 8px;
  margin-bottom: 10px;
}
.side {
  overflow: auto;
  padding: 16px 18px;
  background: rgb(var(--v-theme-surface));
  border-left: var(--line);
}
</style>
