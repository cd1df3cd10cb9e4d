<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { mdiUndoVariant } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import { CONDITIONS, fact } from '@/shared/format'
import { localHead } from '@/shared/localForm'
import { useWorkup } from '../useWorkup'
import FactField from './FactField.vue'

/** What is known of the home, by whose word: tax roll, last listing, and the agent's, which is used. */
const { open, state, send, refused, questioned, insist } = useWorkup()
const condition = computed(() =>
  String(open.data.value?.subject.facts.property_condition ?? '').toLowerCase(),
)
const rate = (word: string) =>
  send({
    change: 'correct_fact',
    field: 'property_condition',
    value: word,
    back: condition.value === word,
    sure: true,
  })
const facts = computed(() => {
  const known = (row: Docs['FactDoc']) =>
    [row.tax_roll, row.last_listing, row.agent, row.used].some((v) => v !== null)
  const all = open.data.value?.facts ?? []
  const shown =
    everything.value || state.value?.home.kind === 'hand'
      ? all
      : all.filter((row) => known(row) || row.corrected)
  // what tax roll and listing disagree on comes first: that is what has to be looked at
  return [...shown.filter((row) => differs(row)), ...shown.filter((row) => !differs(row))]
})
const hidden = computed(() => (open.data.value?.facts ?? []).length - facts.value.length)
const everything = ref(false)
const faulty = ref<string | null>(null)

function differs(row: Docs['FactDoc']) {
  return row.tax_roll !== null && row.last_listing !== null && row.tax_roll !== row.last_listing
}
async function correct(row: Docs['FactDoc'], value: string | number | null) {
  const done = await send({ change: 'correct_fact', field: row.field, value, back: false, sure: false })
  faulty.value = done ? null : row.field
}
async function back(row: Docs['FactDoc']) {
  faulty.value = null
  await send({ change: 'correct_fact', field: row.field, value: null, back: true, sure: true })
}
</script>

<template>
  <section class="facts">
    <h2>The facts</h2>
    <p class="quiet small mb-2">
      What is in use is bold. Type in the last column to correct a fact; the record stays beside it.
    </p>
    <div class="rate" role="group" aria-label="Condition">
      <span>Condition</span>
      <PressArea
        v-for="word in CONDITIONS"
        :key="word"
        :aria-pressed="condition === word"
        @click="rate(word)"
      >
        {{ word }}
      </PressArea>
    </div>
    <PlainTable>
      <thead>
        <tr>
          <th>Fact</th>
          <th class="num">Tax roll</th>
          <th class="num">
            {{ open.data.value?.from_lease ? 'Last listing, a lease' : 'Last listing' }}
          </th>
          <th class="num">In use</th>
          <th>Your word</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in facts" :key="row.field" :class="{ differs: differs(row) && !row.corrected }">
          <td>
            {{ row.label
            }}<span v-if="row.unit && row.unit !== '$'" class="quiet small">, {{ localHead(row.unit) }}</span>
          </td>
          <td class="num">{{ fact(row.tax_roll, row.kind, row.unit) }}</td>
          <td class="num">
            {{ fact(row.last_listing, row.kind, row.unit) }}
            <span v-if="differs(row)" class="flag" title="The tax roll and the last listing disagree">≠</span>
          </td>
          <td class="num" :class="{ cedar: row.corrected }">
            <b>{{ fact(row.used, row.kind, row.unit) }}</b>
          </td>
          <td class="mine">
            <FactField
              :row="row"
              :faulty="faulty === row.field"
              @word="correct(row, $event)"
              @back="back(row)"
            />
            <IconButton
              v-if="row.corrected"
              :icon="mdiUndoVariant"
              size="x-small"
              :name="`${row.label}: back to the records`"
              @click="back(row)"
            />
            <p v-if="faulty === row.field && refused" class="clay small" role="alert">
              {{ refused.message }}
              <ActButton v-if="questioned" @click="insist()">Yes</ActButton>
            </p>
          </td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-if="hidden || everything" class="mt-3">
      <LinkButton @click="everything = !everything">
        {{ everything ? 'Hide what nobody knows' : `${hidden} more facts that no record knows` }}
      </LinkButton>
    </p>
  </section>
</template>

<style scoped>
.differs td {
  background: rgba(var(--v-theme-lamp), 0.12);
}
.flag {
  font-weight: 600;
}
.facts thead th {
  position: sticky;
  top: 0;
  z-index: 1;
  background: rgb(var(--v-theme-mist));
}
.facts table {
  table-layout: fixed;
}
.facts th:first-child {
  width: 27%;
}
.facts thead th {
  white-space: normal;
}
.facts td {
  padding-top: 5px;
  padding-bottom: 5px;
  white-space: normal;
  overflow-wrap: break-word;
}
.facts th:last-child {
  width: 128px;
}
.mine :deep([aria-invalid='true']) {
  border-color: rgb(var(--v-theme-clay));
}
.rate {
  display: flex;
  align-items: center;
  margin-bottom: 8px;
}
.rate span {
  margin-right: 10px;
  font-weight: 600;
}
.rate button {
  padding: 3px 10px;
  border: var(--line);
  border-left-width: 0;
}
.rate button:first-of-type {
  border-left-width: 1px;
  border-radius: 5px 0 0 5px;
}
.rate button:last-of-type {
  border-radius: 0 5px 5px 0;
}
.rate button[aria-pressed='true'] {
  background: rgb(var(--v-theme-cedar));
  color: rgb(var(--v-theme-surface));
  border-color: rgb(var(--v-theme-cedar));
}
.facts td,
.facts th {
  padding-left: 6px;
  padding-right: 6px;
}
.mine :deep(input),
.mine select {
  width: 82px;
  height: 26px;
  padding: 0 7px;
  border: var(--line);
  border-radius: var(--corner);
  color: rgb(var(--v-theme-cedar));
}
.mine select {
  width: 116px;
  padding: 0 2px 0 6px;
}
</style>
