<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { mdiUndoVariant } from '@mdi/js'
import { computed, defineAsyncComponent, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { CONDITIONS, day, fact, money, number } from '@/shared/format'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { useWorkup } from '../useWorkup'
import FactField from './FactField.vue'
import Improvements from './Improvements.vue'
import OwnFeatures from './OwnFeatures.vue'
import OwnPhotos from './OwnPhotos.vue'
import TimeLine from './TimeLine.vue'

const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const { id, open, state, send, refused, questioned, insist } = useWorkup()
const around = useQuery({
  queryKey: ['workup', id, 'around', computed(() => open.data.value?.revision)],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/around', { params: { path: { workup_id: id.value } } })),
  placeholderData: keepPreviousData,
})
const moving = ref(false)
const own = ref<InstanceType<typeof OwnFeatures>>()
const corner = computed(() => around.data.value?.corner ?? [])
const near = computed(() => (around.data.value?.near ?? []).filter((n) => n.feet <= 1500).slice(0, 6))
const noted = (name: string) => (state.value?.features ?? []).some((f) => f.label.startsWith(name))
async function moveHome(latitude: number, longitude: number) {
  moving.value = false
  await send({ change: 'set_place', place: [longitude, latitude] })
}
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
const past = computed(() => open.data.value?.past ?? [])
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
  <div class="home">
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
              }}<span v-if="row.unit && row.unit !== '$'" class="quiet small">, {{ row.unit }}</span>
            </td>
            <td class="num">{{ fact(row.tax_roll, row.kind) }}</td>
            <td class="num">
              {{ fact(row.last_listing, row.kind) }}
              <span v-if="differs(row)" class="flag" title="The tax roll and the last listing disagree"
                >≠</span
              >
            </td>
            <td class="num" :class="{ cedar: row.corrected }">
              <b>{{ fact(row.used, row.kind) }}</b>
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
    <section class="side">
      <h2 class="mb-2">Where it stands</h2>
      <div class="map sheet">
        <HomeMap
          v-if="open.data.value"
          :subject="open.data.value.subject"
          :candidates="[]"
          :zoom="16.2"
          :movable="moving"
          @home="moveHome"
        />
      </div>
      <p class="small mt-1 under">
        <LinkButton :aria-pressed="moving" @click="moving = !moving">
          {{
            moving
              ? 'Click where it stands, drag the house there, or press N on the map and the arrows'
              : 'Not here? Move it'
          }}
        </LinkButton>
        <LinkButton v-if="state?.place" @click="send({ change: 'set_place', place: null })">
          back to the records’ place
        </LinkButton>
      </p>
      <ul v-if="near.length || corner.length" class="near small" aria-label="What lies around">
        <li v-if="corner.length">
          <span
            ><b>On a corner</b> <span class="quiet">{{ corner.slice(0, 2).join(' and ') }}</span></span
          >
          <span>here</span>
          <LinkButton :disabled="noted('Corner lot')" @click="own?.add('Corner lot')">
            {{ noted('Corner lot') ? 'noted' : 'bears on the price' }}
          </LinkButton>
        </li>
        <li v-for="n in near" :key="n.name">
          <span
            ><b>{{ n.name }}</b> <span v-if="n.name !== n.kind" class="quiet">{{ n.kind }}</span></span
          >
          <span>{{ n.feet === 0 ? 'here' : `${number(n.feet)} ft` }}</span>
          <LinkButton
            :disabled="noted(n.name)"
            @click="own?.add(`${n.name} ${n.feet <= 150 ? 'behind' : 'near'}`)"
          >
            {{ noted(n.name) ? 'noted' : 'bears on the price' }}
          </LinkButton>
        </li>
      </ul>
      <h2 class="mt-5 mb-2">Its story</h2>
      <TimeLine :past="past" />
      <PlainTable v-if="past.length">
        <tbody>
          <tr v-for="(event, i) in past" :key="i">
            <td class="when">{{ day(event.date) }}</td>
            <td>
              <b class="what">{{ event.what }}</b> <span class="quiet small">{{ event.note }}</span>
            </td>
            <td class="num">
              {{ event.price === null ? '' : money(event.price) }}{{ event.per ? ` a ${event.per}` : '' }}
            </td>
          </tr>
        </tbody>
      </PlainTable>
      <p v-else class="quiet">The records hold no listing and no deed of this home.</p>
      <OwnFeatures ref="own" />
      <Improvements :around="around.data.value" />
      <OwnPhotos />
    </section>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 26px;
  padding: 18px 24px 28px;
}
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
.facts td,
.facts th {
  padding-left: 6px;
  padding-right: 6px;
}
.facts table {
  table-layout: fixed;
}
.facts th:first-child {
  width: 27%;
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
.mine :deep(input),
.mine select {
  width: 82px;
  height: 26px;
  padding: 0 7px;
  border: var(--line);
  border-radius: var(--corner);
  color: rgb(var(--v-theme-cedar));
}
.mine :deep([aria-invalid='true']) {
  border-color: rgb(var(--v-theme-clay));
}
.map {
  height: 270px;
  overflow: hidden;
}
.under {
  display: flex;
  justify-content: space-between;
}
.near {
  list-style: none;
  padding: 0;
  margin-top: 6px;
}
.near li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 70px 118px;
  gap: 8px;
  padding: 2px 0;
}
.near li > :nth-child(2),
.near li > :nth-child(3) {
  text-align: right;
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
.what::first-letter {
  text-transform: uppercase;
}
.when {
  white-space: nowrap;
}
</style>
