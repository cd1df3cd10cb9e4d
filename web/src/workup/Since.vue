<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DateField from '@/shared/ui/fields/DateField.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import ChangesTable from '@/shared/ChangesTable.vue'
import { day, priced } from '@/shared/format'
import { useWorkup } from './useWorkup'

/** The effective date, which can be changed, and what has happened around the home since. */
const { id, open, state, found, worth, send } = useWorkup()
const opened = ref(false)
// a decision waits for what it changes: not for this, which it hardly touches, and which is asked anew when it is opened
const told = useQuery({
  queryKey: [
    'since',
    id,
    computed(() => [state.value?.effective_date, state.value?.search, state.value?.corrections]),
  ],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/since', { params: { path: { workup_id: id.value } } })),
  enabled: computed(() => !!open.data.value && !found.isFetching.value),
})
const count = computed(() => Object.values(told.data.value?.counts ?? {}).reduce((a, b) => a + b, 0))
const behind = computed(
  () => !!told.data.value && !!state.value && told.data.value.through > state.value.effective_date,
)
const notes = computed(() => ({
  ...Object.fromEntries((told.data.value?.kept ?? []).map((key) => [key, 'your comp'])),
  ...Object.fromEntries((told.data.value?.own ?? []).map((key) => [key, 'this home'])),
}))
const before = ref<{ date: string; value: number | null } | null>(null)
/** What is indicated, once that of the date now chosen has come. */
const now = computed(() =>
  worth.isPlaceholderData.value ? null : (worth.data.value?.price.indicated_value ?? null),
)

function look() {
  opened.value = true
  void told.refetch()
}
async function move(date: string): Promise<boolean> {
  return date === state.value?.effective_date || send({ change: 'set_date', effective_date: date })
}
const refusals = ref(0)
/** A day that is refused does not stay in the field: what it shows is the day on which the home is priced. */
async function typed(date: string | null) {
  if (!date || !(await move(date))) refusals.value += 1
}
async function bringUp() {
  if (!told.data.value || !state.value) return
  const then = { date: state.value.effective_date, value: now.value }
  if (await move(told.data.value.through)) before.value = then
  else close()
}
function close() {
  opened.value = false
  before.value = null
}
</script>

<template>
  <label class="date"
    >as of
    <DateField
      :key="refusals"
      :value="state?.effective_date"
      title="The day on which the home is priced: nothing later is looked at"
      @date="typed"
  /></label>
  <LinkButton v-if="behind && count" class="since" @click="look">
    {{ count }} {{ count === 1 ? 'change' : 'changes' }} since
  </LinkButton>
  <DialogBox title="What has happened since" :width="860" :shown="opened" @close="close()">
    <template #head>
      <h2>
        {{ before ? `Now as of ${day(state?.effective_date)}` : `Since ${day(state?.effective_date)}` }}
      </h2>
    </template>
    <div class="since-sheet">
      <template v-if="before">
        <p class="moved">
          <template v-if="before.value && now">
            Indicated {{ priced(now) }}; on {{ day(before.date) }} it was {{ priced(before.value) }}.
          </template>
          <template v-else-if="worth.isPlaceholderData.value">Looking …</template>
          <template v-else>No comps are kept yet, so there is no value to compare.</template>
          The comps that you kept are the same: look whether a newer sale belongs among them.
        </p>
        <p class="act">
          <ActButton strong @click="close()">Good</ActButton>
          <router-link class="link" :to="{ name: 'comps', params: { id } }" @click="close()"
            >To the comps</router-link
          >
        </p>
      </template>
      <template v-else-if="told.data.value">
        <p class="quiet small">
          What happened to the homes that the search looks at, to those you kept and to the home itself, up to
          {{ day(told.data.value.through) }}.
        </p>
        <div class="list"><ChangesTable :told="told.data.value" :notes="notes" /></div>
        <p class="act">
          <ActButton strong @click="bringUp()">Price it as of {{ day(told.data.value.through) }}</ActButton>
          <LinkButton @click="close()">Leave the date</LinkButton>
        </p>
      </template>
    </div>
  </DialogBox>
</template>

<style scoped>
.date :deep(input) {
  width: 118px;
  text-align: right;
  color: inherit;
  border-bottom: 1px dotted rgb(var(--v-theme-quiet));
}
.since {
  margin-left: 8px;
}
.since-sheet {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-height: 70vh;
}
.list {
  overflow: auto;
  min-height: 0;
}
.act {
  display: flex;
  align-items: center;
  gap: 18px;
}
.moved {
  max-width: 62ch;
}
</style>
