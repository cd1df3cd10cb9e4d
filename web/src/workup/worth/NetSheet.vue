<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DateField from '@/shared/ui/fields/DateField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { money, priced, number, signedPct } from '@/shared/format'
import { useDraft } from '@/shared/useDraft'
import { useWorkup } from '../useWorkup'

type Scenario = Docs['ScenarioDoc-Input']
const { id, state, open, worth, send } = useWorkup()
const { value: scenarios, change: changeAll } = useDraft(
  () => (state.value?.scenarios ?? []) as Scenario[],
  (next) => send({ change: 'set_scenarios', scenarios: next }),
)
const sheets = useQuery({
  queryKey: ['proceeds', id, computed(() => open.data.value?.revision)],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/proceeds', { params: { path: { workup_id: id.value } } })),
  enabled: computed(() => scenarios.value.length > 0),
})
const FIELDS: [keyof Scenario & string, string, string][] = [
  ['price', 'Price', '$'],
  ['listing_side_pct', 'Compensation, listing side', '%'],
  ['buying_side_pct', 'Compensation, buying side', '%'],
  ['title_and_closing', 'Title and closing', '$'],
  ['transfer_tax_pct', 'Transfer tax', '%'],
  ['liens', 'Other liens', '$'],
  ['dues', 'Dues', '$'],
  ['credits_and_repairs', 'Credits and repairs', '$'],
]
const BLANK = {
  loans: [],
  liens: '0',
  title_and_closing: '0',
  transfer_tax_pct: '0',
  dues: '0',
  credits_and_repairs: '0',
  other: [],
}
const save = (next: Scenario[]) => void changeAll(() => next)
function add() {
  const last = scenarios.value.at(-1)
  const price = state.value?.list_price ?? worth.data.value?.price.indicated_value ?? 300000
  const closing = new Date(new Date(state.value!.effective_date).getTime() + 60 * 864e5)
    .toISOString()
    .slice(0, 10)
  save([
    ...scenarios.value,
    last
      ? { ...last, price: String(Math.round(Number(last.price) * 0.97)) }
      : { ...BLANK, price: String(price), closing },
  ])
}
function change(i: number, to: Partial<Scenario>) {
  save(scenarios.value.map((s, k) => (k === i ? { ...s, ...to } : s)))
}
function typed(i: number, name: string, value: number | null) {
  change(i, { [name]: value === null ? (name.endsWith('side_pct') ? null : '0') : String(value) })
}
/** The list price that a scenario no longer stands on; null where it does, or where none is set. */
const listPrice = computed(() => state.value?.list_price ?? null)
const moved = (s: Scenario) => listPrice.value !== null && Number(s.price) !== listPrice.value
const againstList = (s: Scenario) => (100 * (Number(s.price) - listPrice.value!)) / listPrice.value!
const loan = (s: Scenario) => s.loans?.[0] ?? { balance: '0', rate_pct: '0', as_of: null, label: 'Mortgage' }
const changeLoan = (i: number, to: object) => {
  const next = { ...loan(scenarios.value[i]!), as_of: state.value!.effective_date, ...to }
  change(i, { loans: Number(next.balance) ? [next] : [] })
}
const changeTaxes = (i: number, value: number | null) => {
  change(i, {
    taxes: value
      ? {
          a_year: String(value),
          in_arrears: true,
          days_in_year: 365 as const,
          seller_owns_closing_day: false,
        }
      : null,
  })
}
const exact = (amount: string) => number(Number(amount), 2)
const labels = computed(() =>
  [...new Set((sheets.data.value ?? []).flatMap((s) => s.map((l) => l.label)))].filter(
    (l) => l !== 'Net proceeds',
  ),
)
const line = (i: number, label: string) => sheets.data.value?.[i]?.find((l) => l.label === label)
const amount = (i: number, label: string) => line(i, label)?.amount
</script>

<template>
  <section aria-labelledby="net" class="net">
    <h2 id="net" class="mb-1">Net proceeds</h2>
    <p v-if="!scenarios.length" class="quiet">
      What the seller would be left with, line by line to the cent, in up to three scenarios.
    </p>
    <PlainTable v-else class="small" aria-label="Net proceeds">
      <tbody>
        <tr v-for="[name, label, unit] in FIELDS" :key="name">
          <td>{{ label }}<span v-if="unit === '%'" class="quiet">, %</span></td>
          <td v-for="(s, i) in scenarios" :key="i" class="num">
            <NumberField
              :value="(s[name] ?? '') as string"
              :aria-label="`${label}, scenario ${i + 1}`"
              @number="typed(i, name, $event)"
            />
            <p v-if="name === 'price' && moved(s)" class="small follow">
              {{ signedPct(againstList(s)) }} against the list price
              <LinkButton
                :aria-label="`Scenario ${i + 1}: take the list price ${money(listPrice)}`"
                @click="change(i, { price: String(listPrice) })"
              >
                use {{ priced(listPrice) }}
              </LinkButton>
            </p>
          </td>
        </tr>
        <tr>
          <td>Mortgage balance</td>
          <td v-for="(s, i) in scenarios" :key="i" class="num">
            <NumberField
              :value="loan(s).balance"
              :aria-label="`Mortgage balance, scenario ${i + 1}`"
              @number="changeLoan(i, { balance: String($event ?? 0) })"
            />
          </td>
        </tr>
        <tr>
          <td>its rate<span class="quiet">, % a year</span></td>
          <td v-for="(s, i) in scenarios" :key="i" class="num">
            <NumberField
              :value="loan(s).rate_pct"
              :aria-label="`Mortgage rate, scenario ${i + 1}`"
              @number="changeLoan(i, { rate_pct: String($event ?? 0) })"
            />
          </td>
        </tr>
        <tr>
          <td>Taxes a year<span class="quiet">, paid in arrears</span></td>
          <td v-for="(s, i) in scenarios" :key="i" class="num">
            <NumberField
              :value="s.taxes?.a_year ?? ''"
              :aria-label="`Taxes a year, scenario ${i + 1}`"
              @number="changeTaxes(i, $event)"
            />
          </td>
        </tr>
        <tr>
          <td>Closing</td>
          <td v-for="(s, i) in scenarios" :key="i" class="num">
            <DateField
              :value="s.closing"
              :aria-label="`Closing, scenario ${i + 1}`"
              @date="$event && change(i, { closing: $event })"
            />
          </td>
        </tr>
        <tr v-for="l in labels" :key="l" class="line">
          <td>{{ l }}</td>
          <td v-for="(_, i) in scenarios" :key="i" class="num">
            {{ amount(i, l) ? exact(amount(i, l)!) : '' }}
            <span v-if="line(i, l)?.worked" class="worked quiet small">{{ line(i, l)?.worked }}</span>
          </td>
        </tr>
        <tr class="total">
          <td>Net proceeds</td>
          <td v-for="(_, i) in scenarios" :key="i" class="num">
            {{ amount(i, 'Net proceeds') ? exact(amount(i, 'Net proceeds')!) : '' }}
          </td>
        </tr>
        <tr>
          <td />
          <td v-for="(s, i) in scenarios" :key="i" class="num">
            <LinkButton
              class="small"
              :aria-label="`Take scenario ${i + 1} away`"
              @click="save(scenarios.filter((_, k) => k !== i))"
            >
              leave scenario {{ i + 1 }} out
            </LinkButton>
          </td>
        </tr>
      </tbody>
    </PlainTable>
    <ActButton v-if="scenarios.length < 3" class="mt-2" @click="add">
      {{ scenarios.length ? 'Another scenario, 3 % lower' : 'Work out the net proceeds' }}
    </ActButton>
  </section>
</template>

<style scoped>
.net table {
  max-width: 620px;
}
.net :deep(input) {
  width: 118px;
  padding: 2px 6px;
  text-align: right;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
td {
  padding: 2px 8px !important;
}
td:first-child {
  min-width: 170px;
}
.follow {
  max-width: 172px;
  margin: 0 0 0 auto;
  white-space: normal;
  color: rgb(var(--v-theme-cedar));
}
.worked {
  display: block;
  max-width: 172px;
  margin-left: auto;
  white-space: normal;
}
.line td {
  border-bottom: 0;
}
.total td {
  font-weight: 600;
  font-size: var(--text);
  border-top: 1px solid rgb(var(--v-theme-on-surface));
}
</style>
