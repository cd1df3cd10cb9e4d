<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import { day, money, number } from '@/shared/format'
import { useFieldWords } from '@/shared/useFieldWords'
import { useRecordsChanged } from './useRecords'

const WHATS = [
  ['suspect', 'Suspect values', 'Kept as given and left out of statistics until you confirm them.'],
  ['matched', 'Closings with their deeds', 'Same parcel, within 45 days and 1 % of price: one sale.'],
  ['deed_sale', 'Sales known from deeds only', 'Arm’s-length transfers that no listing closed with.'],
  [
    'not_sale',
    'Deeds that are no sales',
    'Nominal price, family or quitclaim deed, foreclosure, several parcels.',
  ],
  ['lease', 'Leases', 'Never counted as sales.'],
  ['distressed', 'Distressed sales', 'Bank sales, short sales, auctions: marked, and kept.'],
  ['not_arms_length', 'Sales not at arm’s length', 'Left out of what the market paid.'],
  [
    'new_construction',
    'New construction',
    'Said to be new, or sold by its builder in the year it was built or the next: left out of a search for an older home.',
  ],
  ['quick_resale', 'Quick resales', 'Sold again within a year: the sale before is shown beside it.'],
  ['relisted', 'Homes listed more than once', 'Listings of one home add up to cumulative days.'],
] as const
type What = (typeof WHATS)[number][0]
type Sale = { key: string; date: string | null; price: number | null }
type Row = Record<string, string | number | null> &
  Sale & {
    shown: string
    values?: Record<string, unknown>
    before?: Sale
  }
const changed = useRecordsChanged()
const what = ref<What>('suspect')
const { label: fieldLabel } = useFieldWords()
const about = computed(() => WHATS.find(([w]) => w === what.value)!)
const counts = useQuery({
  queryKey: ['conclusions'],
  queryFn: () => got(api.GET('/api/records/conclusions')) as Promise<Record<string, number>>,
})
const rows = useQuery({
  queryKey: ['conclusions', what],
  queryFn: () =>
    got(api.GET('/api/records/conclusions/{what}', { params: { path: { what: what.value } } })) as Promise<
      Row[]
    >,
  placeholderData: keepPreviousData,
})
const rulings = useQuery({
  queryKey: ['rulings'],
  queryFn: () => got(api.GET('/api/records/rulings')) as Promise<Record<string, string>[]>,
})
const fault = ref('')
async function rule(kind: Docs['RulingRequest']['kind'], key: string, of: string, says: string | null) {
  fault.value = ''
  try {
    await got(api.POST('/api/records/rulings', { body: { kind, key, about: of, says } }))
    await changed()
  } catch (error) {
    fault.value = (error as Told).message
  }
}
const LABELS: Record<string, string> = {
  not_arms_length: 'arm’s length',
  listing_id: 'closing of a listing',
  manner: 'kind of sale',
  is_lease: 'lease',
  new_construction: 'new construction',
  quick_resale: 'quick resale',
}
const aboutWords = (r: Record<string, string>) =>
  r.about!.startsWith('suspect:')
    ? `${fieldLabel(r.about!.slice(8)).toLowerCase()} confirmed`
    : `${LABELS[r.about!] ?? r.about}: ${{ '0': 'no', '1': 'yes' }[r.says!] ?? (r.says || 'an ordinary sale')}`
</script>

<template>
  <div class="parts">
    <nav aria-label="Conclusions">
      <PressArea v-for="[w, label] in WHATS" :key="w" :class="{ at: what === w }" @click="what = w">
        <span>{{ label }}</span><b>{{ number(counts.data.value?.[w] ?? 0) }}</b>
      </PressArea>
    </nav>
    <section>
      <h2>{{ about[1] }}</h2>
      <p class="quiet mb-2">{{ about[2] }}</p>
      <p v-if="fault" class="lamp mb-2" role="alert">{{ fault }}</p>
      <div class="sheet rows">
        <PlainTable :aria-label="about[1]">
          <tbody>
            <tr v-for="r in rows.data.value ?? []" :key="r.key">
              <td>{{ r.shown }}</td>
              <template v-if="what === 'suspect'">
                <td>
                  <div v-for="(v, name) in r.values ?? {}" :key="name" class="pair">
                    <span
                      >{{ fieldLabel(String(name)) }} <b>{{ v }}</b></span
                    >
                    <LinkButton @click="rule('listings', r.key, `suspect:${name}`, 'confirmed')">
                      it is right
                    </LinkButton>
                  </div>
                </td>
              </template>
              <template v-else-if="what === 'relisted'">
                <td class="small quiet">{{ String(r.listings).split('; ').join(' → ') }}</td>
              </template>
              <template v-else-if="what === 'new_construction' || what === 'quick_resale'">
                <td>{{ day(r.date) }}</td>
                <td class="num">{{ money(r.price) }}</td>
                <td class="quiet">
                  <template v-if="r.before">
                    after {{ money(r.before.price) }} on {{ day(r.before.date) }}, {{ r.before.key }}
                  </template>
                  <template v-else>
                    {{
                      [r.builder, r.year && `built ${r.year}`].filter(Boolean).join(', ') ||
                      'the listing says so'
                    }}
                  </template>
                </td>
                <td class="num">
                  <LinkButton @click="rule('listings', r.key, what, what === 'quick_resale' ? 'none' : '0')">
                    {{ what === 'quick_resale' ? 'no quick resale' : 'not new' }}
                  </LinkButton>
                </td>
              </template>
              <template v-else>
                <td>{{ day(r.date as string) }}</td>
                <td class="num">{{ money(r.price as number) }}</td>
                <td class="quiet">
                  {{
                    r.not_arms_length || r.document_type || r.special_listing_conditions || r.property_type
                  }}
                  <template v-if="r.listing_id">
                    = {{ r.listing_id }}, closed {{ day(r.listing_close_date as string) }} at
                    {{ money(r.listing_close_price as number) }}
                  </template>
                </td>
                <td class="num">
                  <LinkButton
                    v-if="what === 'not_sale'"
                    @click="rule('transfers', r.key, 'not_arms_length', '')"
                  >
                    it was a sale
                  </LinkButton>
                  <LinkButton
                    v-else-if="what === 'deed_sale'"
                    @click="rule('transfers', r.key, 'not_arms_length', 'no ordinary sale, the agent says')"
                  >
                    no ordinary sale
                  </LinkButton>
                  <LinkButton
                    v-else-if="what === 'matched'"
                    @click="rule('transfers', r.key, 'listing_id', 'none')"
                  >
                    not the same sale
                  </LinkButton>
                  <LinkButton v-else-if="what === 'lease'" @click="rule('listings', r.key, 'is_lease', '0')">
                    it was sold
                  </LinkButton>
                  <LinkButton v-else @click="rule('listings', r.key, 'manner', 'standard')">
                    an ordinary sale
                  </LinkButton>
                </td>
              </template>
            </tr>
            <tr v-if="rows.data.value && !rows.data.value.length">
              <td class="quiet">None.</td>
            </tr>
          </tbody>
        </PlainTable>
      </div>
      <template v-if="rulings.data.value?.length">
        <h2 class="mt-5 mb-2">What you said</h2>
        <p v-for="r in rulings.data.value" :key="r.key! + r.about" class="pair">
          <span>{{ r.key }}: {{ aboutWords(r) }}</span>
          <LinkButton @click="rule(r.kind as 'listings', r.key!, r.about!, null)"> take it back </LinkButton>
        </p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: 28px;
}
nav {
  display: grid;
  align-content: start;
  gap: 2px;
}
nav button {
  display: flex;
  justify-content: space-between;
  padding: 7px 10px;
  border-radius: var(--corner);
  text-align: left;
}
nav button.at {
  background: rgb(var(--v-theme-surface));
  font-weight: 600;
}
nav b {
  font-weight: 500;
}
.rows {
  max-height: 56vh;
  overflow: auto;
}
.pair {
  display: flex;
  gap: 16px;
  justify-content: space-between;
  max-width: 620px;
}
</style>
