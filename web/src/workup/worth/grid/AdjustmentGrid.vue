<script setup lang="ts">
import { vWord } from '@/shared/words/vWord'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { computed, ref } from 'vue'
import { CONDITIONS, day, money, far } from '@/shared/format'
import { useWorkup } from '../../useWorkup'
import AmountCell from './AmountCell.vue'
import GridFoot from './GridFoot.vue'
import RateCell from '../rates/RateCell.vue'
import RateOpened from '../rates/RateOpened.vue'
import WeightedMean from './WeightedMean.vue'
import { useColumnMoves } from './useColumnMoves'
import { hasRate, isUnknown, useGridRows } from './useGridRows'
import { provideGridTyping } from './useGridTyping'
import { useRateWords } from '../rates/useRateWords'
import { localHead } from '@/shared/localForm'

const { state, send, lit, worth } = useWorkup()
const { comps, grid, rows, own, difference } = useGridRows()
const { shownRate } = useRateWords()
const { dragged, over, move, dropOn } = useColumnMoves()
provideGridTyping()

const nameOf = (i: number) => comps.value[i]?.address || comps.value[i]?.listing_id
const opened = ref('')
const openedLabel = computed(() => rows.value.find((r) => r.field === opened.value)?.label ?? opened.value)
const factors = computed(() => worth.data.value?.factors ?? [])
const rateHome = (value: string) =>
  send({ change: 'correct_fact', sure: false, field: 'property_condition', value, back: false })
</script>

<template>
  <div class="box">
    <PlainTable aria-label="Adjustment grid">
      <thead>
        <tr>
          <th class="name">Adjusted to the subject</th>
          <th class="num">Rate</th>
          <th class="num cedar" :title="state?.address">Subject</th>
          <th
            v-for="c in comps"
            :key="c.listing_id"
            class="num comp"
            :class="{ lit: lit === c.listing_id, over: over === c.listing_id }"
            draggable="true"
            tabindex="0"
            :aria-label="`${c.address || c.listing_id}: drag, or Alt and arrow keys, to move its column`"
            @dragstart="dragged = c.listing_id"
            @dragover.prevent="over = c.listing_id"
            @dragleave="over = ''"
            @drop.prevent="dropOn(c.listing_id)"
            @keydown.alt.left.prevent="move(c.listing_id, -1)"
            @keydown.alt.right.prevent="move(c.listing_id, 1)"
          >
            <span class="address">{{ c.address || c.listing_id }}</span>
            <span class="quiet small under">{{ day(c.close_date) }} · {{ far(c.distance_miles) }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td class="name">Close price</td>
          <td />
          <td />
          <td v-for="c in comps" :key="c.listing_id" class="num">{{ money(c.close_price) }}</td>
        </tr>
        <tr v-for="row in rows" :key="row.field">
          <td class="name">
            <LinkButton
              v-if="hasRate(row.field)"
              v-word="{ name: row.field, more: `Press for what speaks for the rate of ${row.label}` }"
              class="plainly"
              @click="opened = row.field"
            >
              {{ row.label }}
            </LinkButton>
            <span v-else v-word="row.field">{{ row.label }}</span>
          </td>
          <RateCell v-if="hasRate(row.field)" :field="row.field" :label="row.label" />
          <td v-else />
          <td class="num subject">
            <ChoiceField
              v-if="row.field === 'condition_grade' && isUnknown(row)"
              aria-label="Condition of this home"
              :title="`Not rated: ${shownRate(row.field)} a step is left out`"
              @chosen="rateHome($event)"
            >
              <option value="">rate it</option>
              <option v-for="word in CONDITIONS" :key="word" :value="word">{{ word }}</option>
            </ChoiceField>
            <router-link
              v-else-if="isUnknown(row)"
              :to="{ name: 'home' }"
              :title="`Not known of this home: ${shownRate(row.field)} ${localHead('$')} a unit is left out`"
              >give it</router-link
            >
            <template v-else>{{ own(row) }}</template>
          </td>
          <AmountCell
            v-for="(cell, i) in row.cells"
            :key="comps[i]?.listing_id"
            :class="{ lit: lit === comps[i]?.listing_id }"
            :cell="cell"
            :listing="comps[i]?.listing_id ?? ''"
            :label="`${row.label}, ${nameOf(i)}`"
            :difference="difference(cell)"
          />
        </tr>
      </tbody>
      <GridFoot :comps="comps" :over-limits="grid.map((column) => column.over_limits)" :factors="factors" />
    </PlainTable>
    <WeightedMean />
    <RateOpened v-if="opened" :field="opened" :label="openedLabel" @close="opened = ''" />
  </div>
</template>

<style scoped>
.box {
  width: max-content;
  min-width: 100%;
}
table {
  border-collapse: separate;
  border-spacing: 0;
  min-width: 100%;
  font-size: var(--text-s);
}
table :deep(:is(th, td)) {
  padding: 3px 8px;
  border-bottom: 1px solid rgba(var(--v-theme-line), 0.6);
  background: rgb(var(--v-theme-surface));
}
thead th {
  position: sticky;
  top: 0;
  z-index: 2;
  font-weight: 600;
  vertical-align: bottom;
  text-align: left;
}
thead th.num {
  text-align: right;
}
table :deep(.name) {
  position: sticky;
  left: 0;
  z-index: 1;
  min-width: 112px;
}
table :deep(tfoot .name) {
  z-index: 4;
}
table thead .name {
  z-index: 5;
}
.comp {
  min-width: 84px;
  cursor: grab;
}
.address {
  display: block;
  width: 92px;
  margin-left: auto;
  white-space: normal;
  overflow-wrap: anywhere;
}
table td.subject {
  background: rgba(var(--v-theme-cedar), 0.07);
}
.plainly {
  color: inherit;
  text-align: left;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
th.over {
  box-shadow: inset 2px 0 0 rgb(var(--v-theme-cedar));
}
table :deep(.typed-in) {
  width: 70px;
  text-align: right;
  height: 24px;
  border-radius: var(--corner);
  border: 1px solid transparent;
  padding: 0 4px;
  color: inherit;
}
table :deep(.typed-in:is(:hover, :focus)) {
  border-color: rgb(var(--v-theme-line));
}
table :deep(.typed-in[aria-invalid='true']) {
  border-color: rgb(var(--v-theme-clay));
}
table :deep(.fault) {
  display: block;
  white-space: normal;
  max-width: 200px;
}
table :deep(.under) {
  display: block;
  font-size: var(--tiny);
  font-weight: 400;
  margin-left: auto;
}
table :deep(:is(th, td).lit) {
  background: rgba(var(--v-theme-lamp), 0.14);
}
</style>
