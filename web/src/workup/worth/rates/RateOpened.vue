<script setup lang="ts">
import DialogBox from '@/shared/ui/DialogBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { fact, number, pctWords, rateWords, roughRate, signed, rateMeasured } from '@/shared/format'
import { useWorkup } from '../../useWorkup'
import IndexChart from './IndexChart.vue'
import PartialPlot from './PartialPlot.vue'
import PlaceMap from './PlaceMap.vue'
import RateCurve from './RateCurve.vue'
import { localHead } from '@/shared/localForm'

/** One rate of the grid with all that speaks for it: the local sales, pairs of sales, and every figure that may be used. */
const props = defineProps<{ field: string; label: string }>()
const emit = defineEmits<{ close: [] }>()
const { id, open, worth, send, state } = useWorkup()
const isChange = computed(() => props.field === 'market_change')
const isPlace = computed(() => props.field === 'location')
const revision = computed(() => open.data.value?.revision)
const rate = useQuery({
  queryKey: ['rate', id, computed(() => props.field), revision],
  queryFn: () =>
    got(
      api.GET('/api/workups/{workup_id}/rates/{field}', {
        params: { path: { workup_id: id.value, field: props.field } },
      }),
    ),
  enabled: computed(() => !isChange.value && !isPlace.value),
})
const place = useQuery({
  queryKey: ['spots', id, revision],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/spots', { params: { path: { workup_id: id.value } } })),
  enabled: isPlace,
})
const unit = computed(() => rate.data.value?.one ?? '')
const index = useQuery({
  queryKey: ['index', id, revision],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/index', { params: { path: { workup_id: id.value } } })),
  enabled: isChange,
})
const change = computed(() => worth.data.value?.price.market_change)
const typed = computed(() => props.field in (state.value?.rates ?? {}))
const now = computed(() => {
  if (isChange.value) return change.value?.pct_per_month
  if (isPlace.value) return worth.data.value?.price.rates.find((r) => r.field === props.field)?.dollars
  return rate.data.value?.dollars
})
/** A rate in dollars for one of what is shown. */
const perUnit = (dollars: number) => rateMeasured(dollars, unit.value)
const used = (value: number) => now.value !== undefined && Math.abs(value - now.value) < 1e-9
const take = (value: number | null) => send({ change: 'set_rate', field: props.field, value })
const NAMES: Record<string, string> = {
  'local sales': 'Sales around here',
  'wider market': 'The wider market',
  'paired sales': 'Pairs of sales',
  'house rule': 'House rule',
}
</script>

<template>
  <DialogBox :title="`Evidence for ${label}`" :width="1060" @close="emit('close')">
    <template #head>
      <h2>
        {{ label }}:
        <span :class="typed ? 'cedar' : ''">
          {{
            now === undefined
              ? ''
              : isChange
                ? `${pctWords(now)} % a month`
                : `${rateWords(perUnit(now))} ${localHead('$')}`
          }}
        </span>
        <span v-if="isPlace" class="quiet small"> for one percent</span>
        <span v-else-if="!isChange && unit" class="quiet small"> for one {{ localHead(unit) }}</span>
      </h2>
    </template>
    <template #acts>
      <LinkButton v-if="typed" @click="take(null)">back to the evidence</LinkButton>
    </template>
    <div>
      <template v-if="isChange">
        <IndexChart v-if="index.data.value" :points="index.data.value" />
        <p v-if="change">
          Over the last {{ change.window_days }} days prices moved by
          <b>{{ pctWords(change.pct_per_month) }} % a month</b>, four times in five between
          {{ pctWords(change.low) }} and {{ pctWords(change.high) }}; from {{ number(change.sales) }} sales,
          with the mix of homes and the seasons taken out.
        </p>
        <p v-if="change && change.low < 0 && change.high > 0" class="lamp">
          The band reaches across zero: the sales do not tell whether prices rose or fell.
          <LinkButton @click="take(0)">Use no change</LinkButton>
        </p>
      </template>

      <template v-else-if="isPlace">
        <PlaceMap v-if="place.data.value" :place="place.data.value" />
        <p v-else-if="place.isError.value" class="lamp">{{ place.error.value?.message }}</p>
        <p v-else class="quiet">Looking the sales up …</p>
      </template>

      <div v-else-if="rate.data.value" class="two">
        <section>
          <PartialPlot
            v-if="rate.data.value.dots.length"
            :dots="rate.data.value.dots"
            :slope="rate.data.value.slope ?? 0"
            :in-percent="rate.data.value.in_percent"
            :unit="unit"
          />
          <p v-if="rate.data.value.dots.length" class="small quiet">
            {{ number(rate.data.value.dots.length) }} sales around here, each against the homes next to it,
            with every other difference and time taken out; larger dots lie nearer to this home.
          </p>
          <p v-else class="quiet">No sale around here tells of it.</p>
          <RateCurve
            v-if="rate.data.value.curve"
            class="mt-4"
            :field="field"
            :curve="rate.data.value.curve"
            :rate="now ?? 0"
            :unit="unit"
          />
        </section>
        <section>
          <h3>Which figure to use</h3>
          <PlainTable class="small" aria-label="Figures that may be used">
            <tbody>
              <tr v-for="c in rate.data.value.choices" :key="c.source" :class="{ used: used(c.dollars) }">
                <td>
                  <b>{{ NAMES[c.source] ?? c.source }}</b>
                  <span class="quiet under">{{ c.says }}</span>
                </td>
                <td class="num">
                  <b>{{ rateWords(perUnit(c.dollars)) }}</b>
                  <span class="quiet under">
                    <template v-if="c.standard_error"
                      >± {{ roughRate(perUnit(1.28 * c.standard_error)) }}</template
                    >
                    <template v-if="c.sales"
                      >{{ c.standard_error ? ', ' : '' }}{{ number(c.sales)
                      }}{{ c.source === 'paired sales' ? ' pairs' : ' sales' }}</template
                    >
                  </span>
                </td>
                <td class="act">
                  <span v-if="used(c.dollars)" class="moss small">in use</span>
                  <LinkButton
                    v-else
                    :aria-label="`Use ${NAMES[c.source] ?? c.source}`"
                    @click="take(c.dollars)"
                  >
                    use
                  </LinkButton>
                </td>
              </tr>
            </tbody>
          </PlainTable>
          <p v-if="rate.data.value.weak" class="lamp small mt-2">
            {{ rate.data.value.says || 'Its interval is too wide to lean on.' }}
          </p>
          <h3 class="mt-4">Pairs alike but for this</h3>
          <p v-if="rate.data.value.pair_count" class="small">
            {{ number(rate.data.value.pair_count) }} pairs; the middle half between
            {{ roughRate(perUnit(rate.data.value.pair_low ?? 0)) }} and
            {{ roughRate(perUnit(rate.data.value.pair_high ?? 0)) }}.
          </p>
          <p v-else class="small quiet">No two sales around here agree on all else.</p>
          <div v-if="rate.data.value.pairs.length" class="pairs">
            <PlainTable class="small" aria-label="Pairs of sales">
              <thead>
                <tr>
                  <th>With more</th>
                  <th>With less</th>
                  <th class="num">Differ by</th>
                  <th class="num">In price</th>
                  <th class="num">For one</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="p in rate.data.value.pairs" :key="p.more + p.fewer">
                  <td>{{ p.more_address || p.more }}</td>
                  <td>{{ p.fewer_address || p.fewer }}</td>
                  <td class="num">{{ fact(p.difference, 'number', unit) }}</td>
                  <td class="num">{{ signed(p.dollars) }}</td>
                  <td class="num">{{ roughRate(perUnit(p.per_unit)) }}</td>
                </tr>
              </tbody>
            </PlainTable>
          </div>
        </section>
      </div>
      <p v-else-if="rate.isError.value" class="lamp">{{ rate.error.value?.message }}</p>
      <p v-else class="quiet">Looking the sales up …</p>
    </div>
  </DialogBox>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.05fr) minmax(0, 1fr);
  gap: 28px;
}
h3 {
  font-size: var(--text-s);
  font-weight: 600;
  margin-bottom: 4px;
}
.under {
  display: block;
  font-size: var(--tiny);
}
.act {
  width: 64px;
  white-space: nowrap;
  text-align: right;
}
.used td {
  background: rgba(var(--v-theme-moss), 0.1);
}
.pairs {
  max-height: 210px;
  overflow: auto;
  overflow-wrap: anywhere;
}
</style>
