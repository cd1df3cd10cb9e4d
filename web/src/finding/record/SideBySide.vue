<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { computed, nextTick, ref, watch } from 'vue'
import {
  CONDITIONS,
  DASH,
  conditionOf,
  fact,
  priced,
  day,
  signedFact,
  far,
  perSqftWords,
} from '@/shared/format'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import { useFields } from '@/shared/useFields'
import Choose from '../Choose.vue'
import { useFinding, type Candidate } from '../useFinding'
import { localHead, measured } from '@/shared/localForm'

const props = defineProps<{ rows: Candidate[]; here: string | null }>()
const emit = defineEmits<{ select: [key: string]; open: [key: string] }>()
const { home: of, choiceOf, lit, way, conditionOf: rated, rate } = useFinding()
const MOST = 24
const homes = computed(() => props.rows.filter((r) => choiceOf(r.listing_id) !== 'set_aside').slice(0, MOST))
const mine = computed(() => of.value?.subject.facts ?? {})
const fields = useFields()
type Field = NonNullable<typeof fields.data.value>[number]
/** Only what differs from the subject on some home; a row in which all are alike says nothing. */
const shownFields = computed<Field[]>(() =>
  (fields.data.value ?? []).filter(
    (f) =>
      f.group === 'home' &&
      f.name !== 'property_condition' &&
      homes.value.some((h) => h.facts[f.name] !== undefined && h.facts[f.name] !== mine.value[f.name]),
  ),
)
const alike = computed(() =>
  (fields.data.value ?? [])
    .filter(
      (f) =>
        f.group === 'home' &&
        f.name in mine.value &&
        f.shown &&
        !shownFields.value.some((r) => r.name === f.name),
    )
    .map((f) => f.label.toLowerCase()),
)
function gap(home: Candidate, f: Field): string {
  const [a, b] = [home.facts[f.name], mine.value[f.name]]
  return typeof a === 'number' && typeof b === 'number' && a !== b && f.kind !== 'yes_no'
    ? signedFact(a - b, f.unit)
    : ''
}
const condition = (home: Candidate) =>
  rated(home.listing_id)
    ? conditionOf(rated(home.listing_id)!)
    : String(home.facts.property_condition ?? DASH).toLowerCase()

const src = (key: string) => served(`/api/listings/${encodeURIComponent(key)}/pictures/1`)
const missing = ref(new Set<string>())
const box = ref<HTMLElement>()
watch(
  () => props.here,
  async () => {
    await nextTick()
    box.value?.querySelector('th.at')?.scrollIntoView({ inline: 'nearest', block: 'nearest' })
  },
)
</script>

<template>
  <div ref="box" class="side">
    <PlainTable aria-label="Homes side by side">
      <thead>
        <tr>
          <th class="name first">
            <img v-if="of?.picture" :src="served(of.picture)" alt="Front of the home" />
            <b class="cedar">{{ of?.named ? of.address : '' }}</b>
          </th>
          <th
            v-for="h in homes"
            :key="h.listing_id"
            :class="{
              at: h.listing_id === here,
              lit: h.listing_id === lit,
              kept: choiceOf(h.listing_id) === 'kept',
            }"
            @click="emit('select', h.listing_id)"
          >
            <img
              v-if="!missing.has(h.listing_id) && !h.listing_id.startsWith('deed:')"
              :src="src(h.listing_id)"
              :alt="`Front of ${h.address}`"
              loading="lazy"
              @error="missing.add(h.listing_id)"
            />
            <span v-else class="none quiet small">no picture</span>
            <PressArea
              class="address"
              :title="`Open ${h.address || h.listing_id}`"
              @click.stop="emit('open', h.listing_id)"
            >
              {{ h.address || h.listing_id }}
            </PressArea>
            <span class="marks">
              <Mark :kind="h.kind" :choice="choiceOf(h.listing_id)" />
              <span class="small quiet">{{ KIND_WORDS[h.kind] ?? h.kind }} {{ day(h.date) }}</span>
            </span>
            <Choose :home="h" />
          </th>
        </tr>
      </thead>
      <tbody>
        <tr class="price">
          <td class="name">
            {{ of?.price ? `List ${priced(of.price)}` : 'Price' }}
          </td>
          <td v-for="h in homes" :key="h.listing_id">
            <b>{{ priced(h.price) }}</b>
            <span v-if="h.price_per_sqft" class="under">{{ perSqftWords(h.price_per_sqft) }}</span>
            <template v-else-if="h.prices.price_per_acre">
              <span class="under">{{ perSqftWords(h.prices.price_per_lot_sqft) }} of lot</span>
              <span class="under"
                >{{ priced(measured(h.prices.price_per_acre, '$/acre')) }}
                {{ localHead('an acre').replace('an h', 'a h') }}</span
              >
            </template>
          </td>
        </tr>
        <tr>
          <td class="name">Distance · days</td>
          <td v-for="h in homes" :key="h.listing_id">
            {{ far(h.distance_miles) }}
            <span class="under">{{
              h.days_on_market === null ? 'days unknown' : `${h.days_on_market} days`
            }}</span>
          </td>
        </tr>
        <tr>
          <td class="name">
            Condition<span class="under">{{ fact(mine.property_condition, 'word') }}</span>
          </td>
          <td v-for="h in homes" :key="h.listing_id">
            <template v-if="way === 'tick'">{{ condition(h) }}</template>
            <ChoiceField
              v-else
              :model-value="String(rated(h.listing_id) ?? '')"
              :class="{ cedar: rated(h.listing_id) }"
              :aria-label="`Condition of ${h.address}`"
              @chosen="rate(h.listing_id, Number($event) || null)"
            >
              <option value="">{{ rated(h.listing_id) ? 'as recorded' : condition(h) }}</option>
              <option v-for="(word, i) in CONDITIONS" :key="word" :value="String(6 - i)">{{ word }}</option>
            </ChoiceField>
          </td>
        </tr>
        <tr v-for="f in shownFields" :key="f.name">
          <td class="name">
            {{ f.label }}<span class="under">{{ fact(mine[f.name], f.kind, f.unit) }}</span>
          </td>
          <td v-for="h in homes" :key="h.listing_id" :class="{ same: h.facts[f.name] === mine[f.name] }">
            {{ fact(h.facts[f.name], f.kind, f.unit) }}
            <span class="under">{{ gap(h, f) }}</span>
          </td>
        </tr>
        <tr>
          <td class="name">Look at</td>
          <td v-for="h in homes" :key="h.listing_id" class="flags small">{{ h.flags.join(', ') }}</td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-if="alike.length" class="quiet small alike">Alike on all: {{ alike.join(', ') }}.</p>
  </div>
</template>

<style scoped>
.side {
  overflow: auto;
  min-height: 0;
  height: 100%;
}
table {
  border-collapse: separate;
  border-spacing: 0;
}
th,
td {
  width: 148px;
  min-width: 148px;
  max-width: 148px;
  padding: 4px 10px;
  border-bottom: 1px solid rgba(var(--v-theme-line), 0.6);
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  background: rgb(var(--v-theme-surface));
}
thead th {
  position: sticky;
  top: 0;
  z-index: 1;
  padding-top: 8px;
  cursor: pointer;
}
.name {
  position: sticky;
  left: 0;
  z-index: 1;
  width: 168px;
  min-width: 168px;
  background: rgb(var(--v-theme-mist));
  font-weight: 500;
}
thead .name {
  z-index: 2;
}
th.at {
  box-shadow: inset 0 3px 0 rgb(var(--v-theme-slate, 36, 64, 78));
}
th.kept {
  background: rgba(var(--v-theme-cedar), 0.08);
}
img,
.none {
  display: block;
  width: 100%;
  aspect-ratio: 3 / 2;
  object-fit: cover;
  border-radius: var(--corner);
  margin-bottom: 4px;
}
.none {
  display: grid;
  place-items: center;
  background: rgb(var(--v-theme-mist));
}
.address {
  font-weight: 600;
  text-align: left;
}
.marks {
  display: flex;
  align-items: center;
  gap: 4px;
}
.under {
  display: block;
  font-size: var(--small);
  font-weight: 400;
  color: rgb(var(--v-theme-quiet));
}
.same {
  color: rgb(var(--v-theme-quiet));
}
.price td {
  font-size: var(--text-l);
}
.flags {
  border-left: 0;
}
.flags:not(:empty) {
  box-shadow: inset 3px 0 0 rgb(var(--v-theme-lamp));
}
select {
  width: 100%;
  color: inherit;
}
.alike {
  padding: 8px 12px 20px;
}
</style>
