<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { DASH, money, number, perSqft, share } from '@/shared/format'
import { localHead } from '@/shared/localForm'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import { useFinding, type Candidate } from './useFinding'
import Choose from './Choose.vue'
import PriceBySize from './PriceBySize.vue'
import { useFigures } from './useFigures'

/** Means, medians and the like of what is found, by kind; what lies far from the rest, and the mean without it. */
const props = defineProps<{ rows: Candidate[]; word: string }>()
defineEmits<{ open: [key: string] }>()
const finding = useFinding()
const { lit } = finding
const told = useFigures(finding)
type Field = Docs['FieldSummaryDoc']
type Summary = Docs['SummaryDoc']
const SHOW: Record<string, (v: number) => string> = {
  money: (v) => money(v),
  per: perSqft,
  number: (v) => number(v),
  share: (v) => share(v),
}
const shown = (f: Field, v: number) => (SHOW[f.show] ?? number)(v)
const STEPS = [
  ['low', 'Low'],
  ['lower_quartile', 'Lower quart.'],
  ['mean', 'Mean'],
  ['median', 'Median'],
  ['upper_quartile', 'Upper quart.'],
  ['high', 'High'],
] as const
/** The home's own value of a figure, where it is for sale or has a list price. */
const own = (name: string) => told.data.value?.fields.find((f) => f.field === name)?.home ?? undefined
/** How far the home's own value lies from a mean, in words. */
function against(f: Field, k: Summary): string {
  if (f.home === null || f.home === undefined || !k.mean) return ''
  const pct = (100 * (f.home - k.mean)) / k.mean
  return Math.abs(pct) < 0.05
    ? 'at the mean'
    : `${share(Math.abs(pct) / 100)} ${pct > 0 ? 'above' : 'below'} the mean`
}
/** Of all found, then of the chosen. */
const rowsOf = (f: Field) => [
  ...f.kinds.map((k) => ({ k, picked: false })),
  ...f.chosen.map((k) => ({ k, picked: true })),
]
const soldOf = (f: Field) => f.kinds.find((k) => k.kind === 'sold') ?? f.kinds.find((k) => k.kind === '')
const mode = (f: Field, k: Summary) =>
  k.modes.length && k.modes.length < 3 ? k.modes.map((v) => shown(f, v)).join(' or ') : DASH
const named = (k: Summary) => (k.kind ? (KIND_WORDS[k.kind] ?? k.kind) : 'all')
/** Each home with a value far from the rest, and what that does to the means of its kind. */
const far = computed(() => {
  const homes = new Map<
    string,
    { k: Summary; address: string; lines: { f: Field; k: Summary; x: Docs['OutlyingDoc'] }[] }
  >()
  for (const f of told.data.value?.fields ?? [])
    for (const k of f.kinds.filter((of) => of.kind))
      for (const x of k.far) {
        const held = homes.get(x.listing_id) ?? { k, address: x.address, lines: [] }
        held.lines.push({ f, k, x })
        homes.set(x.listing_id, held)
      }
  return [...homes].map(([key, of]) => ({ key, ...of, home: props.rows.find((r) => r.listing_id === key) }))
})
</script>

<template>
  <div class="figures" :aria-busy="told.isFetching.value" tabindex="0" role="region" aria-label="In figures">
    <p v-if="told.isError.value" class="lamp" role="alert">{{ told.error.value?.message }}</p>
    <p v-else-if="told.data.value && !told.data.value.fields.length" class="quiet">
      This search finds no home: there are no figures.
    </p>
    <div v-if="told.data.value?.fields.length" class="halves">
      <PlainTable class="small" aria-label="Figures by kind">
        <thead>
          <tr>
            <th>Kind</th>
            <th class="num">Homes</th>
            <th v-for="[at, words] in STEPS" :key="at" class="num">{{ words }}</th>
            <th class="num" title="The most frequent value, rounded as it is shown">Mode</th>
          </tr>
        </thead>
        <tbody v-for="f in told.data.value.fields" :key="f.field">
          <tr class="field">
            <th scope="rowgroup" :colspan="STEPS.length + 3">
              {{ localHead(f.label) }}
              <span v-if="f.home != null && f.show !== 'share'" class="mine small">
                this home <b>{{ shown(f, f.home) }}</b>{{
                  soldOf(f) ? `, ${against(f, soldOf(f)!)} of the ${named(soldOf(f)!)}` : ''
                }}
              </span>
            </th>
          </tr>
          <tr v-for="{ k, picked } in rowsOf(f)" :key="`${picked} ${k.kind}`" :class="{ picked }">
            <td>
              <span class="marked">
                <Mark v-if="k.kind" :kind="k.kind" :choice="picked ? 'kept' : 'undecided'" />
                {{ picked ? `${word}, ${named(k)}` : named(k) }}
              </span>
            </td>
            <td class="num">{{ number(k.count) }}</td>
            <td v-for="[at] in STEPS" :key="at" class="num">
              <component :is="at === 'median' ? 'b' : 'span'">{{ shown(f, k[at]) }}</component>
            </td>
            <td class="num">{{ mode(f, k) }}</td>
          </tr>
        </tbody>
      </PlainTable>
      <section>
        <PriceBySize
          class="mb-4"
          :rows="rows"
          :area="own('living_area')"
          :price="own('list_price')"
          @open="$emit('open', $event)"
        />
        <h2>Far from the rest</h2>
        <p class="quiet small">
          {{
            far.length
              ? 'More than one and a half times the middle half’s width beyond it. What is set aside is in no mean.'
              : 'No value lies far from the others of its kind.'
          }}
          <template v-if="told.data.value.left_out"
            >{{ told.data.value.left_out }} set aside {{ told.data.value.left_out === 1 ? 'is' : 'are' }} left
            out.</template
          >
        </p>
        <ul v-if="far.length" aria-label="Far from the rest">
          <li
            v-for="{ key, k, address, lines, home } in far"
            :key="key"
            :class="{ lit: lit === key }"
            @mouseenter="lit = key"
            @mouseleave="lit = null"
          >
            <div>
              <p class="marked">
                <Mark :kind="k.kind" />
                <LinkButton v-if="home" @click="$emit('open', key)">
                  {{ address }}
                </LinkButton>
                <span v-else>{{ address }}</span>
              </p>
              <p v-for="line in lines" :key="line.f.field" class="small">
                {{ localHead(line.f.label) }} <b>{{ shown(line.f, line.x.value) }}</b>: mean of
                {{ named(line.k) }} {{ shown(line.f, line.k.mean) }}, without it
                {{ shown(line.f, line.x.mean_without) }}
              </p>
            </div>
            <Choose v-if="home" :home="home" />
          </li>
        </ul>
      </section>
    </div>
  </div>
</template>

<style scoped>
.figures {
  height: 100%;
  overflow: auto;
  padding: 10px 18px 24px;
}
.halves {
  display: grid;
  grid-template-columns: minmax(694px, 1fr) minmax(264px, 420px);
  gap: 24px;
  align-items: start;
}
@media (max-width: 1180px) {
  .halves {
    grid-template-columns: 1fr;
  }
}
table.plain td,
table.plain th {
  padding: 1px 6px;
  height: 25px;
}
table.plain th[scope] {
  padding-top: 12px;
  text-align: left;
  font-size: var(--text);
  font-weight: 600;
  color: rgb(var(--v-theme-on-surface));
}
.marked {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  white-space: nowrap;
}
li {
  display: flex;
  align-items: start;
  justify-content: space-between;
  gap: 10px;
  padding: 7px 6px;
  border-top: var(--line);
}
li.lit {
  background: rgb(var(--v-theme-mist));
}
.picked td {
  background: color-mix(in srgb, rgb(var(--v-theme-cedar)) 6%, rgb(var(--v-theme-surface)));
}
.picked td:first-child {
  box-shadow: inset 3px 0 rgb(var(--v-theme-cedar));
}
.mine {
  margin-left: 10px;
  font-weight: 400;
  color: rgb(var(--v-theme-cedar));
}
@media (max-width: 760px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
  .halves > :first-child {
    display: block;
    overflow-x: auto;
  }
}
ul {
  padding: 0;
  list-style: none;
  margin-top: 8px;
}
h2 {
  font-size: var(--text-l);
}
</style>
