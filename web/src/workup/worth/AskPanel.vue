<script setup lang="ts">
import { vWord } from '@/shared/words/vWord'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { computed, ref, watch } from 'vue'
import { money, priced, number, perSqft, signedPct, share } from '@/shared/format'
import { useLight } from '@/shared/style/useTheme'
import { useWorkup } from '../useWorkup'
import WorkedOut from '../WorkedOut.vue'
import { useAsking, within } from './useAsking'
import { localHead } from '@/shared/localForm'

const { send, state, lit, open } = useWorkup()
const { asking, price, set } = useAsking()
const { tokens } = useLight()
const a = computed(() => asking.data.value)
const text = ref('')
watch(
  [() => state.value?.recommendation, () => a.value?.sentence],
  ([own, written]) => (text.value = own || written || ''),
  { immediate: true },
)
function keepText() {
  const own = text.value.trim() === a.value?.sentence ? '' : text.value.trim()
  if (own !== (state.value?.recommendation ?? '')) void send({ change: 'set_recommendation', text: own })
}
const pct = (share: number | null | undefined) => (share == null ? '' : `${Math.round(100 * share)} %`)
const words = (g: { low: number | null; high: number | null }) =>
  g.low == null
    ? `up to ${number(g.high, 2)}`
    : g.high == null
      ? `above ${number(g.low, 2)}`
      : `${number(g.low, 2)}–${number(g.high, 2)}`
const W = 420
const H = 130
const x = (d: number) => 30 + (d / 180) * (W - 40)
const y = (share: number) => 8 + (1 - share) * (H - 32)
const curve = computed(() => {
  const points = a.value?.curve ?? []
  return points.length ? `M${x(0)} ${y(0)}${points.map(([d, share]) => `L${x(d)} ${y(share)}`).join('')}` : ''
})
const ladder = computed(() => {
  const rows: {
    key: string
    words: string
    price: number
    per: number | null
    days: number | null
    own: boolean
  }[] = (a.value?.rivals ?? []).map((r) => ({
    key: r.listing_id,
    words: r.address || r.listing_id,
    price: r.price,
    per: r.price_per_sqft,
    days: r.days,
    own: false,
  }))
  const area = open.data.value?.subject.facts.living_area as number | undefined
  if (price.value)
    rows.push({
      key: 'own',
      words: 'This home',
      price: price.value,
      per: area ? price.value / area : null,
      days: null,
      own: true,
    })
  return rows.sort((p, q) => p.price - q.price)
})
</script>

<template>
  <section v-if="a" aria-labelledby="the-ask" class="ask">
    <h2 id="the-ask">
      The ask<span class="quiet"> at {{ set ? '' : 'the indicated value, ' }}{{ priced(price) }}</span>
    </h2>
    <TextField
      v-model="text"
      :rows="3"
      aria-label="Sentence of recommendation"
      :class="{ cedar: !!state?.recommendation }"
      @change="keepText"
    />
    <p v-if="state?.recommendation" class="small">
      <span class="cedar">In your own words.</span>
      <LinkButton @click="send({ change: 'set_recommendation', text: '' })">
        back to the written one
      </LinkButton>
    </p>
    <p>
      <template v-for="(s, i) in a.statements" :key="s">{{ i ? ' · ' : '' }}{{ s }}</template>
    </p>
    <div class="two">
      <div>
        <h3>If this home were listed at</h3>
        <PlainTable v-if="a.prices.length" class="small" aria-label="Chance of a contract by list price">
          <thead>
            <tr>
              <th class="num">List price</th>
              <th class="num">against the value</th>
              <th v-word="{ name: 'chance', more: 'In grey: four times in five it lies between these' }">
                Contract within 30 days, likely
              </th>
              <th class="num">60 days</th>
              <th class="num">90 days</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in a.prices" :key="p.price" :class="{ mine: p.price === a.list_price }">
              <td class="num">{{ money(p.price) }}</td>
              <td class="num">{{ signedPct(100 * (p.position - 1)) }}</td>
              <template v-if="p.chances">
                <td>
                  <i class="bar"><i :style="{ width: `${within(p.chances, 30)!.pct}%` }" /></i>
                  <WorkedOut
                    figure="chance"
                    :name="`the chance at ${money(p.price)}`"
                    :list-price="p.price"
                    location="bottom start"
                    >{{ within(p.chances, 30)!.pct }} %</WorkedOut
                  >
                  <span class="quiet"
                    >{{ within(p.chances, 30)!.low_pct }}–{{ within(p.chances, 30)!.high_pct }}</span
                  >
                </td>
                <td class="num">{{ within(p.chances, 60)!.pct }} %</td>
                <td class="num">{{ within(p.chances, 90)!.pct }} %</td>
              </template>
              <td v-else colspan="3" class="quiet">too few were offered so far from their worth to say</td>
            </tr>
          </tbody>
        </PlainTable>
        <p v-else class="small quiet">
          Too few homes were offered around here to say what a price would do to the time.
        </p>
        <svg
          v-if="curve"
          :viewBox="`0 0 ${W} ${H}`"
          role="img"
          class="curve"
          aria-label="Share under contract by days on the market, at this price"
        >
          <path v-for="s in [0, 0.5, 1]" :key="s" :d="`M${x(0)} ${y(s)}H${x(180)}`" :stroke="tokens.line" />
          <text
            v-for="s in [0, 0.5, 1]"
            :key="`t${s}`"
            x="26"
            :y="y(s) + 4"
            font-size="10"
            text-anchor="end"
            :fill="tokens.quiet"
          >
            {{ 100 * s }}
          </text>
          <text
            v-for="d in [0, 30, 60, 90, 120, 150, 180]"
            :key="d"
            :x="x(d)"
            :y="H - 8"
            font-size="10"
            text-anchor="middle"
            :fill="tokens.quiet"
          >
            {{ d }}
          </text>
          <path :d="curve" fill="none" :stroke="tokens.cedar" stroke-width="2" />
          <circle
            v-for="c in a.here?.chances ?? []"
            :key="c.days"
            :cx="x(c.days)"
            :cy="y(c.pct / 100)"
            r="3.5"
            :fill="tokens.cedar"
          >
            <title>{{ c.pct }} % within {{ c.days }} days</title>
          </circle>
        </svg>
        <p v-if="a.here?.chances" class="small quiet">
          Percent under contract by day at {{ priced(a.list_price) }}, learnt from
          {{ number(a.learnt) }} homes offered around here in three years, about {{ number(a.near) }} of them
          so far from their worth. The unsold count as unsold so far; what the value may be off by is taken
          into account.
          <template v-if="a.share_of_list">
            Those sold at such a price got {{ share(a.share_of_list) }} of their last list price<template
              v-if="a.failed != null"
              >; {{ pct(a.failed) }} failed to sell</template
            >.
          </template>
        </p>
        <details v-if="a.groups.length" class="mt-3">
          <summary>What became of homes offered around here</summary>
          <PlainTable class="small" aria-label="What became of homes offered around here">
            <thead>
              <tr>
                <th>First list price, against what records told of its worth then</th>
                <th class="num">Homes</th>
                <th class="num">Within 30 days</th>
                <th class="num">Share got</th>
                <th class="num">Failed</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="g in a.groups" :key="words(g)">
                <td>{{ words(g) }}</td>
                <td class="num">{{ number(g.n) }}</td>
                <td class="num">
                  <template v-if="g.chances">{{ pct(g.chances[a.within_days.indexOf(30)]) }}</template>
                  <span v-else class="quiet">too few to say</span>
                </td>
                <td class="num">{{ g.share_of_list ? share(g.share_of_list) : '' }}</td>
                <td class="num">{{ pct(g.failed) }}</td>
              </tr>
            </tbody>
          </PlainTable>
          <p class="small quiet">
            Another question than the one above: among homes that look dear by their records are some that are
            better than their records tell, and those sell.
          </p>
        </details>
        <p v-if="a.quick_per_sqft && a.slow_per_sqft" class="small mt-2">
          Of the homes that this search lets through, listed within a year: under contract within two weeks
          <b>{{ perSqft(a.quick_per_sqft) }}</b> a {{ localHead('sq ft') }} ({{ a.quick_n }}
          {{ a.quick_n === 1 ? 'home' : 'homes' }}); not within 60 days
          <b>{{ perSqft(a.slow_per_sqft) }}</b> ({{ a.slow_n }}).
        </p>
      </div>
      <div>
        <h3>What it competes with</h3>
        <PlainTable class="small" aria-label="Homes for sale now, by price">
          <tbody>
            <tr
              v-for="r in ladder"
              :key="r.key"
              :class="{ own: r.own, at: lit === r.key }"
              @mouseenter="lit = r.own ? null : r.key"
              @mouseleave="lit = null"
            >
              <td>{{ r.words }}</td>
              <td class="num">{{ money(r.price) }}</td>
              <td class="num quiet">{{ r.per ? perSqft(r.per) : '' }}</td>
              <td class="num quiet">{{ r.days == null ? '' : `${r.days} d` }}</td>
            </tr>
          </tbody>
        </PlainTable>
        <p v-if="a.rivals.length" class="small quiet">
          {{ a.rank === 1 ? 'The cheapest' : `Number ${a.rank} from the cheapest` }} of
          {{ a.rivals.length + 1
          }}{{ a.rank_per_sqft ? `, number ${a.rank_per_sqft} by price per ${localHead('sq ft')}` : '' }}.
        </p>
        <p v-else class="small quiet">Nothing that this search finds is for sale now.</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 10px;
  margin-top: 26px;
}
h3 {
  font-size: var(--text-s);
  font-weight: 600;
  margin-bottom: 4px;
}
textarea {
  width: 100%;
  max-width: 860px;
  padding: 8px 12px;
  border: var(--line);
  border-radius: var(--corner-l);
  background: rgb(var(--v-theme-surface));
  color: inherit;
  font-size: var(--text-l);
  line-height: 1.45;
  resize: vertical;
}
.two {
  display: grid;
  grid-template-columns: 1.25fr 1fr;
  gap: 36px;
}
.bar {
  display: inline-block;
  width: 110px;
  height: 8px;
  margin-right: 6px;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-mist));
}
.bar i {
  display: block;
  height: 100%;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-rain));
}
.mine td,
.own td {
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
.mine .bar i {
  background: rgb(var(--v-theme-cedar));
}
.at td {
  background: rgb(var(--v-theme-mist));
}
.curve {
  width: 100%;
  max-width: 460px;
  margin-top: 10px;
}
</style>
