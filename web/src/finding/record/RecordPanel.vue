<script setup lang="ts">
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { mdiClose } from '@mdi/js'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useKeys } from '@/shared/keys/keys'
import { DASH, counted, day, fact, money, priced, share, far, perSqftWords } from '@/shared/format'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import Choose from '../Choose.vue'
import LikenessParts from './LikenessParts.vue'
import RecordPictures from './RecordPictures.vue'
import { useFinding, type Candidate } from '../useFinding'
import { localHead } from '@/shared/localForm'

/** One record, whole: pictures, prices, days, every fact, the story of its home. */
const props = defineProps<{ row: Candidate }>()
const emit = defineEmits<{ close: []; next: [by: number] }>()
const { ask, choiceOf, home, stamp, way } = useFinding()
const id = computed(() => props.row.listing_id)
const record = useQuery({
  queryKey: ['record', stamp, id, computed(() => home.value?.until)],
  queryFn: () => ask.record(id.value),
})
const told = computed(() => record.data.value)
const name = computed(() => props.row.address || props.row.listing_id)
const factOf = (field: string) => told.value?.facts.find((f) => f.field === field)?.value
/** Each price with the day on which it was so, and what it comes to. */
const prices = computed(() => {
  const p = told.value?.prices ?? {}
  const line = (words: string, field: string, date: string, more: string[]) => {
    const value = factOf(field)
    return typeof value === 'number'
      ? [{ words, price: money(value), day: day(factOf(date) as string), more }]
      : []
  }
  const of = (name: string, words: string) => (p[name] === undefined ? [] : [`${share(p[name])} of ${words}`])
  return [
    ...line('First list', 'original_list_price', 'on_market_date', []),
    ...line(
      'Last list',
      'list_price',
      '',
      p.list_price_per_sqft ? [perSqftWords(p.list_price_per_sqft)] : [],
    ),
    ...line('Paid', 'close_price', 'close_date', [
      ...(props.row.price_per_sqft ? [perSqftWords(props.row.price_per_sqft)] : []),
      ...of('share_of_list', 'the last list'),
      ...of('share_of_original', 'the first'),
    ]),
    ...(props.row.prices.paid_before
      ? [
          {
            words: 'The time before',
            price: money(props.row.prices.paid_before),
            day: day(props.row.paid_before_on),
            more: [] as string[],
          },
        ]
      : []),
  ]
})
const days = computed(() => {
  const r = told.value
  if (!r) return ''
  const own =
    r.days === null ? 'Days on the market are not known' : `${counted(r.days!, 'day')} on the market`
  const all =
    r.cumulative_days && r.cumulative_days !== r.days
      ? `, ${counted(r.cumulative_days, 'day')} with the listings before`
      : ''
  const given =
    r.given_days === null
      ? ''
      : ` (its source says ${r.given_days}${r.given_cumulative_days === null ? '' : `, ${r.given_cumulative_days} in all`})`
  return `${own}${all}${given}`
})
const WORKED = {
  price_per_sqft: 'Per sq ft',
  share_of_list: '% of list',
  share_of_original: '% of first',
  days: 'Days',
  cumulative_days: 'All days',
}
/** The formulas of the figures above, with this home's own dates and prices. */
const workings = computed(() =>
  Object.entries(WORKED).flatMap(([name, words]) => {
    const formula = told.value?.worked[name]
    return formula ? [[words, formula] as const] : []
  }),
)
const status = computed(() => {
  const r = told.value
  if (!r) return ''
  return r.local_status || r.status
})
const OWN_LINE = new Set(['original_list_price', 'list_price', 'close_price'])
const facts = computed(() => (told.value?.facts ?? []).filter((f) => !OWN_LINE.has(f.field)))
const unit = (u: string) => (u && u !== '$' ? ` ${localHead(u)}` : '')

function key(event: KeyboardEvent) {
  if (event.key === 'Escape') emit('close')
  else if (event.key === 'ArrowDown') emit('next', 1)
  else if (event.key === 'ArrowUp') emit('next', -1)
  else return
  event.preventDefault()
  event.stopPropagation()
}
useKeys(key, true)
</script>

<template>
  <aside class="panel" :aria-label="`Record of ${name}`">
    <header>
      <Mark :kind="row.kind" :choice="choiceOf(row.listing_id)" />
      <div class="name">
        <h2>{{ name }}</h2>
        <p class="quiet small">
          {{ KIND_WORDS[row.kind] ?? row.kind }} {{ day(row.date) }} ·
          <template v-if="home?.here">{{ far(row.distance_miles) }} ·</template>
          {{ row.listing_id.startsWith('deed:') ? 'from a deed' : `number ${row.listing_id}` }}
          <template v-if="status"> · status {{ status }}</template>
        </p>
      </div>
      <p class="price">
        <b>{{ priced(row.price) }}</b>
        <span v-if="row.price_per_sqft" class="quiet small">{{ perSqftWords(row.price_per_sqft) }}</span>
      </p>
      <Choose wide :home="row" />
      <slot name="acts" />
      <IconButton
        :icon="mdiClose"
        size="small"
        name="Close the record"
        title="Close (Esc)"
        @click="emit('close')"
      />
    </header>
    <div class="body">
      <div class="photos">
        <RecordPictures v-if="told" :listing="row.listing_id" :captions="told.pictures" />
        <template v-if="told?.story.length">
          <h2 class="mt-4 mb-1">The story of this home</h2>
          <PlainTable class="small" aria-label="The story of this home">
            <tbody>
              <tr v-for="(e, i) in told.story" :key="i" :class="{ other: e.listing_id !== row.listing_id }">
                <td class="when">{{ day(e.date) }}</td>
                <td>
                  {{ e.what }} <span class="quiet">{{ e.note === row.listing_id ? '' : e.note }}</span>
                </td>
                <td class="num">
                  {{ e.price === null ? '' : money(e.price) }}{{ e.per ? ` a ${e.per}` : '' }}
                </td>
              </tr>
            </tbody>
          </PlainTable>
        </template>
      </div>
      <div class="words">
        <p v-if="row.flags.length" class="lamp mb-2">{{ row.flags.join(', ') }}</p>
        <p v-if="home?.named" class="mb-3">
          <b>Against your home:</b> {{ row.differences.join(', ') || 'alike in all that is recorded' }}.
        </p>
        <p v-if="record.isError.value" class="clay" role="alert">{{ record.error.value?.message }}</p>
        <p v-else-if="!told" class="quiet">Reading …</p>
        <template v-else>
          <PlainTable v-if="prices.length" aria-label="Prices">
            <tbody>
              <tr v-for="p in prices" :key="p.words">
                <td class="quiet when">{{ p.words }}</td>
                <td>
                  <b>{{ p.price }}</b> <span class="quiet small">{{ p.day === DASH ? '' : p.day }}</span>
                  <span class="more quiet small">{{ p.more.join(' · ') }}</span>
                </td>
              </tr>
            </tbody>
          </PlainTable>
          <p class="small mb-3">{{ days }}.</p>
          <details v-if="workings.length" class="workings small mb-3">
            <summary>How these are worked out</summary>
            <dl>
              <template v-for="[words, formula] in workings" :key="words">
                <dt class="quiet">{{ words }}</dt>
                <dd>{{ formula }}</dd>
              </template>
            </dl>
          </details>
          <PlainTable aria-label="Facts of this home">
            <tbody>
              <tr v-for="f in facts" :key="f.field">
                <td class="quiet">{{ f.label }}</td>
                <td class="num">{{ fact(f.value, f.kind, f.unit) }}{{ unit(f.unit) }}</td>
              </tr>
            </tbody>
          </PlainTable>
          <p v-if="told.remarks" class="mt-3">{{ told.remarks }}</p>
          <p v-if="told.place_from" class="quiet small mt-3">
            Its source does not say where it stands: the map shows {{ told.place_from }}.
          </p>
          <p v-if="told.told_by.length > 1" class="quiet small mt-3">
            Told by {{ told.told_by.map((t) => `${t.source} (${t.number})`).join(' and ') }}; one sale.
          </p>
          <p v-if="told.agent || told.office" class="quiet small mt-3">
            Listed by {{ [told.agent, told.office].filter(Boolean).join(', ') }}. Never on paper.
          </p>
        </template>
        <LikenessParts class="mt-3" :home="row" />
      </div>
    </div>
    <footer class="quiet small">
      <LinkButton @click="emit('next', -1)">↑ the home before</LinkButton>
      <LinkButton @click="emit('next', 1)">↓ the next home</LinkButton>
      <span>← → pictures · {{ way === 'tick' ? 'Space tick' : 'K keep · X set aside' }} · Esc close</span>
    </footer>
  </aside>
</template>

<style scoped>
.workings summary {
  cursor: pointer;
}
.workings dd {
  margin: 0;
}
.workings dl {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 3px 10px;
  margin-top: 4px;
}
.panel {
  position: absolute;
  inset: 0;
  z-index: 6;
  background: rgb(var(--v-theme-surface));
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 10px 14px;
  border-bottom: var(--line);
}
.name {
  flex: 1;
}
.price {
  text-align: right;
  line-height: 1.2;
}
.price b {
  display: block;
  font-size: var(--title);
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(260px, 1fr);
  min-height: 0;
}
.photos {
  padding: 12px 14px;
  overflow: auto;
}
.words {
  padding: 12px 16px;
  overflow: auto;
}
/* a long word of a fact breaks, so that none stands beyond the edge */
.words td.num {
  white-space: normal;
  overflow-wrap: anywhere;
}
.when {
  white-space: nowrap;
}
.more {
  display: block;
}
.other {
  color: rgb(var(--v-theme-quiet));
}
footer {
  display: flex;
  gap: 18px;
  padding: 5px 16px;
  border-top: var(--line);
}
@media (max-width: 700px) {
  header {
    flex-wrap: wrap;
    gap: 4px 10px;
    padding: 8px 12px;
  }
  .name {
    flex: 1 1 0;
    min-width: 45%;
  }
  .body {
    display: block;
    overflow: auto;
  }
  .photos,
  .words {
    overflow: visible;
  }
  footer span {
    display: none;
  }
}
</style>
