<script setup lang="ts">
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { mdiUndoVariant } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import {
  CONDITIONS,
  conditionOf,
  DASH,
  fact,
  money,
  noNumber,
  number,
  day,
  signed,
  signedFact,
  signedPct,
  typedNumber,
} from '@/shared/format'
import { useFields } from '@/shared/useFields'
import { useWorkup } from '../useWorkup'
import RateOpened from './RateOpened.vue'
import { useColumnMoves } from './useColumnMoves'
import { useRateWords } from './useRateWords'

const { worth, state, send, refused, lit, open } = useWorkup()
const price = computed(() => worth.data.value?.price)
const comps = computed(() => price.value?.comps ?? [])
const grid = computed(() => worth.data.value?.grid ?? [])
const mine = computed(() => open.data.value?.subject.facts ?? {})
const { rates, strength, evidence, typedRate, shownRate } = useRateWords()
const { dragged, over, move, dropOn } = useColumnMoves()

/** Concessions and what no field holds are amounts, not rates. */
const hasRate = (field: string) =>
  field !== 'concessions' && field !== 'improvements' && !field.startsWith('own: ')

const rows = computed(() => {
  const first = grid.value[0]
  if (!first) return []
  return first.lines
    .map((line, i) => ({
      field: line.field,
      label: line.label,
      cells: grid.value.map((column) => column.lines[i]),
    }))
    .filter(
      (row) =>
        row.field === 'market_change' ||
        !hasRate(row.field) ||
        row.field in (state.value?.rates ?? {}) ||
        row.cells.some((cell) => cell.overridden || (cell.theirs !== null && cell.theirs !== cell.mine)),
    )
})

const fields = useFields()
const kindOf = (field: string) => fields.data.value?.find((f) => f.name === field)?.kind ?? 'number'
type Cell = Docs['LineDoc']
function own(field: string, cells: Cell[] = []): string {
  const value = mine.value[field] ?? cells.find((cell) => cell.mine !== null)?.mine
  if (typeof value !== 'number' || ['market_change', 'location'].includes(field))
    return ['concessions', 'market_change', 'location'].includes(field) ? '' : DASH
  if (field === 'condition_grade') return conditionOf(value)
  return fact(value, kindOf(field))
}
/** The comp less the subject, in the feature's unit; days for market change. */
function difference(cell: Cell): string {
  if (cell.field === 'market_change') return `${number(cell.theirs)} days`
  if (cell.field === 'concessions' || cell.theirs === null || cell.mine === null) return ''
  if (cell.field === 'location') return signedPct(cell.theirs)
  if (cell.theirs === cell.mine) return 'alike'
  if (cell.field === 'condition_grade') return conditionOf(cell.theirs)
  if (kindOf(cell.field) === 'yes_no') return fact(cell.theirs, 'yes_no')
  return signedFact(cell.theirs - cell.mine)
}

/** What is equal for all comps is added once, after the weighted mean of their adjusted prices. */
const added = computed(() => (price.value?.apart ?? []).reduce((sum, a) => sum + a.amount, 0))
const mean = computed(
  () => (price.value?.methods.find((m) => m.name === 'adjusted_comps')?.value ?? 0) - added.value,
)

/** The home's own fact is unknown while a comp's is known: a step of it is left out, and is asked for. */
const unknown = (row: { field: string; cells: Cell[] }) =>
  hasRate(row.field) &&
  !['market_change', 'location'].includes(row.field) &&
  row.cells.every((c) => c.mine === null) &&
  row.cells.some((c) => c.theirs !== null)
const rateHome = (value: string) =>
  send({ change: 'correct_fact', sure: false, field: 'property_condition', value, back: false })

const unread = ref('')
/** The number typed into a field of the grid; undefined where none stands there, which is said beside it. */
function read(text: string, where: string): number | null | undefined {
  const given = typedNumber(text)
  unread.value = Number.isNaN(given) ? noNumber(text) : ''
  if (unread.value) faulty.value = where
  return unread.value ? undefined : given
}
const says = computed(() => unread.value || refused.value?.message)

const exceeding = computed(() => grid.value.filter((column) => column.over_limits.length).length)
/** The cell whose formula is shown: the one that is being looked at. */
const looked = ref('')
const opened = ref('')
const opens = (field: string) => hasRate(field) && field !== 'location'
const WEIGHTS =
  'Likeness, how recent, how little is adjusted, how near to the model; type a share to set it, the rest rescale.'
const setWeight = (key: string) => key in (state.value?.weights ?? {})
async function typeWeight(key: string, held: number, text: string) {
  const given = read(text, `weight ${key}`)
  if (given === undefined || (given !== null && Math.abs(given - 100 * held) < 0.05)) return
  const weight = given === null ? null : given / 100
  faulty.value = (await send({ change: 'set_weight', listing_id: key, weight })) ? '' : `weight ${key}`
}
const backWeight = (key: string) => send({ change: 'set_weight', listing_id: key, weight: null })

const faulty = ref('')
async function typeRate(field: string, text: string) {
  const given = read(text, field)
  if (given === undefined) return
  if (given !== null && given === typedNumber(shownRate(field))) return
  faulty.value = (await send({ change: 'set_rate', field, value: given })) ? '' : field
}
const backRate = (field: string) => send({ change: 'set_rate', field, value: null })
async function typeCell(listing: string, field: string, text: string) {
  const given = read(text, `${listing} ${field}`)
  if (given === undefined) return
  const ok = await send({ change: 'set_cell', listing_id: listing, field, amount: given })
  faulty.value = ok ? '' : `${listing} ${field}`
}
const backCell = (listing: string, field: string) =>
  send({ change: 'set_cell', listing_id: listing, field, amount: null })
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
            <span class="quiet small under"
              >{{ day(c.close_date) }} · {{ c.distance_miles.toFixed(2) }} mi</span
            >
          </th>
        </tr>
      </thead>
      <tbody>
        <tr class="price">
          <td class="name">Close price</td>
          <td />
          <td />
          <td v-for="c in comps" :key="c.listing_id" class="num">{{ money(c.close_price) }}</td>
        </tr>
        <tr v-for="row in rows" :key="row.field">
          <td class="name">
            <LinkButton
              v-if="opens(row.field)"
              class="plainly"
              :title="`What speaks for the rate of ${row.label}`"
              @click="opened = row.field"
            >
              {{ row.label }}
            </LinkButton>
            <template v-else>{{ row.label }}</template>
          </td>
          <td class="num rate">
            <template v-if="hasRate(row.field)">
              <span class="typed" :class="{ cedar: typedRate(row.field) }">
                <IconButton
                  v-if="typedRate(row.field)"
                  :icon="mdiUndoVariant"
                  size="x-small"
                  :name="`Rate of ${row.label}: back to the evidence`"
                  @click="backRate(row.field)"
                />
                <TypedInput
                  :value="shownRate(row.field)"
                  inputmode="decimal"
                  :aria-label="`Rate of ${row.label}`"
                  :aria-invalid="faulty === row.field"
                  @typed="typeRate(row.field, $event)"
                />
                <span class="quiet small unit">{{
                  row.field === 'market_change' ? '%/mo' : row.field === 'location' ? '$/%' : '$'
                }}</span>
              </span>
              <span
                class="evidence"
                :class="{ weak: rates[row.field]?.weak }"
                :title="rates[row.field]?.says"
              >
                <i v-if="rates[row.field]" :style="{ width: `${strength(row.field)}px` }" />
                {{ evidence(row.field) }}
              </span>
              <span v-if="faulty === row.field && says" class="clay small fault" role="alert">{{
                says
              }}</span>
            </template>
          </td>
          <td class="num subject">
            <ChoiceField
              v-if="row.field === 'condition_grade' && unknown(row)"
              aria-label="Condition of this home"
              :title="`Not rated: ${shownRate(row.field)} a step is left out`"
              @chosen="rateHome($event)"
            >
              <option value="">rate it</option>
              <option v-for="word in CONDITIONS" :key="word" :value="word">{{ word }}</option>
            </ChoiceField>
            <router-link
              v-else-if="unknown(row)"
              :to="{ name: 'home' }"
              :title="`Not known of this home: ${shownRate(row.field)} $ a unit is left out`"
              >give it</router-link
            >
            <template v-else>{{ own(row.field, row.cells) }}</template>
          </td>
          <td
            v-for="(cell, i) in row.cells"
            :key="comps[i]?.listing_id"
            class="num cell"
            :class="{ own: cell.overridden, lit: lit === comps[i]?.listing_id }"
            :title="
              cell.apart ? `${cell.formula}; equal for all comps, added once after their mean` : cell.formula
            "
          >
            <TypedInput
              :value="cell.amount === null || cell.apart ? '' : signed(cell.amount)"
              :placeholder="cell.apart ? 'once' : cell.amount === null ? 'unknown' : ''"
              :aria-label="`${row.label}, ${comps[i]?.address || comps[i]?.listing_id}`"
              :aria-invalid="faulty === `${comps[i]?.listing_id} ${row.field}`"
              @typed="typeCell(comps[i].listing_id, row.field, $event)"
              @focus="looked = `${comps[i]?.listing_id} ${row.field}`"
              @blur="looked = ''"
            />
            <span
              v-if="looked === `${comps[i]?.listing_id} ${row.field}` && cell.formula"
              class="formula small"
              >{{
                cell.apart
                  ? `${cell.formula}; equal for all comps, added once after their mean`
                  : cell.formula
              }}</span
            >
            <span
              v-if="faulty === `${comps[i]?.listing_id} ${row.field}` && says"
              class="clay small fault"
              role="alert"
              >{{ says }}</span
            >
            <span v-if="!cell.overridden && !cell.apart" class="under quiet">{{ difference(cell) }}</span>
            <LinkButton
              v-if="cell.overridden"
              class="under"
              :title="`Back to ${signed(cell.computed)}`"
              @click="backCell(comps[i].listing_id, row.field)"
            >
              {{ cell.computed === null ? 'back' : `not ${signed(cell.computed)}` }}
            </LinkButton>
          </td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <td class="name" colspan="3">
            Net · gross
            <span v-if="exceeding" class="quiet small"
              >{{ exceeding }} of {{ comps.length }} exceed a limit</span
            >
          </td>
          <td
            v-for="(c, i) in comps"
            :key="c.listing_id"
            class="num small"
            :title="grid[i]?.over_limits.join('; ')"
          >
            <span
              :class="{ over: grid[i]?.over_limits.length }"
              :tabindex="grid[i]?.over_limits.length ? 0 : undefined"
              :aria-label="
                grid[i]?.over_limits.length ? `Beyond a limit: ${grid[i]!.over_limits.join('; ')}` : undefined
              "
            >
              {{ signedPct(c.net_pct) }} · {{ c.gross_pct.toFixed(1) }} %
            </span>
          </td>
        </tr>
        <tr class="total">
          <td class="name" colspan="3">Adjusted price</td>
          <td v-for="c in comps" :key="c.listing_id" class="num">
            <b>{{ money(c.adjusted_price) }}</b>
          </td>
        </tr>
        <tr>
          <td class="name" colspan="3" :title="WEIGHTS">
            Weight, % · likeness
            <span v-if="faulty.startsWith('weight ') && says" class="clay small" role="alert">{{
              says
            }}</span>
          </td>
          <td v-for="c in comps" :key="c.listing_id" class="num small quiet weight">
            <LinkButton
              v-if="setWeight(c.listing_id)"
              :aria-label="`Weight of ${c.address || c.listing_id}: back to the formula`"
              title="Back to the formula"
              @click="backWeight(c.listing_id)"
            >
              ↺
            </LinkButton>
            <TypedInput
              :value="(100 * c.weight).toFixed(1)"
              :class="{ cedar: setWeight(c.listing_id) }"
              inputmode="decimal"
              :title="WEIGHTS"
              :aria-label="`Weight of ${c.address || c.listing_id}, percent`"
              :aria-invalid="faulty === `weight ${c.listing_id}`"
              @typed="typeWeight(c.listing_id, c.weight, $event)"
            />
            · {{ number(c.likeness) }}
          </td>
        </tr>
      </tfoot>
    </PlainTable>
    <p v-if="worth.data.value?.weights_say" class="sum small">
      <b>{{ worth.data.value.weights_say }}</b>
      <span class="quiet">
        A weight comes of likeness, how recent the sale is, how little is adjusted, and how near it comes to
        the model’s value; a share that you type stays, and the rest rescale.</span
      >
    </p>
    <p v-if="price?.apart?.length" class="sum">
      Weighted mean {{ money(mean) }}
      <span v-for="a in price.apart" :key="a.field" :title="a.formula">
        {{ a.amount < 0 ? '−' : '+' }} {{ a.label.toLowerCase() }} {{ money(Math.abs(a.amount)) }}, once
      </span>
      = <b>{{ money(mean + added) }}</b>
    </p>
    <RateOpened
      v-if="opened"
      :field="opened"
      :label="rows.find((r) => r.field === opened)?.label ?? opened"
      @close="opened = ''"
    />
  </div>
</template>

<style scoped>
.box {
  width: max-content;
  min-width: 100%;
}
.sum {
  position: sticky;
  left: 0;
  width: calc(100cqw - 40px);
  padding: 6px 8px;
}
.cell {
  position: relative;
}
.formula {
  position: absolute;
  z-index: 3;
  right: 0;
  top: calc(100% - 4px);
  width: max-content;
  max-width: 300px;
  padding: 4px 8px;
  text-align: left;
  white-space: normal;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  box-shadow: 0 4px 12px rgba(20, 40, 50, 0.16);
}
table {
  border-collapse: separate;
  border-spacing: 0;
  min-width: 100%;
  font-size: var(--text-s);
}
th,
td {
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
tfoot td {
  position: sticky;
  z-index: 2;
  height: 30px;
}
tfoot .name {
  z-index: 4;
}
thead .name {
  z-index: 5;
}
tfoot tr:nth-child(1) td {
  bottom: 59px;
}
tfoot tr:nth-child(2) td {
  bottom: 29px;
}
tfoot tr:nth-child(3) td {
  bottom: 0;
}
.name {
  position: sticky;
  left: 0;
  z-index: 1;
  min-width: 112px;
}
.comp {
  min-width: 84px;
}
.address {
  display: block;
  width: 92px;
  margin-left: auto;
  white-space: normal;
}
.rate {
  min-width: 138px;
}
.subject {
  background: rgba(var(--v-theme-cedar), 0.07);
}
.plainly {
  color: inherit;
  text-align: left;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
th.comp {
  cursor: grab;
}
th.over {
  box-shadow: inset 2px 0 0 rgb(var(--v-theme-cedar));
}
.weight {
  white-space: nowrap;
}
.weight input {
  width: 42px;
  text-align: right;
  border: 1px solid transparent;
  border-radius: var(--corner);
  color: inherit;
}
.weight input:hover,
.weight input:focus {
  border-color: rgb(var(--v-theme-line));
}
.weight input.cedar {
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
.rate input,
.cell input {
  width: 70px;
  text-align: right;
  height: 24px;
  border-radius: var(--corner);
  border: 1px solid transparent;
  padding: 0 4px;
  color: inherit;
}
.rate input:hover,
.cell input:hover,
.rate input:focus,
.cell input:focus {
  border-color: rgb(var(--v-theme-line));
}
input[aria-invalid='true'] {
  border-color: rgb(var(--v-theme-clay));
}
.typed {
  display: inline-flex;
  align-items: center;
  justify-content: flex-end;
}
.unit {
  width: 34px;
  text-align: left;
  padding-left: 4px;
}
.evidence {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 6px;
  font-size: var(--tiny);
  color: rgb(var(--v-theme-quiet));
}
.evidence i {
  display: inline-block;
  height: 4px;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-rain));
}
.evidence.weak i {
  background: rgb(var(--v-theme-lamp));
}
.fault {
  display: block;
  white-space: normal;
  max-width: 200px;
}
.own input {
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
.under {
  display: block;
  font-size: var(--tiny);
  font-weight: 400;
  margin-left: auto;
}
.lit {
  background: rgba(var(--v-theme-lamp), 0.14);
}
.over {
  background: rgba(var(--v-theme-lamp), 0.35);
  padding: 1px 5px;
  border-radius: var(--corner);
}
.total td {
  border-top: 1.5px solid rgb(var(--v-theme-slate));
}
</style>
