<script setup lang="ts">
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { day, number, sized } from '@/shared/format'
import { shownAs, type View } from '../useView'
import { localHead } from '@/shared/localForm'

/** How the values behind a mean or median lie: bars of equal width, the middle marked; a bar shows its homes. */
const props = defineProps<{ view: View; measure: string; told: Docs['HeadlineDoc'] }>()
const ask = computed<Docs['BehindAsk']>(() => ({
  view: props.view,
  measure: props.measure,
  place: props.view.together ? '' : (props.view.places?.[0] ?? ''),
  whole: false,
  start: props.told.start,
  end: props.told.end,
}))
const spread = useQuery({
  queryKey: ['value-spread', ask],
  queryFn: () => got(api.POST('/api/market/value-spread', { body: ask.value })),
  placeholderData: keepPreviousData,
  retry: false,
})
const bins = computed(() => spread.data.value?.bins ?? [])
const most = computed(() => Math.max(1, ...bins.value.map((b) => b.n)))
const unit = computed(() => spread.data.value?.unit ?? '')
const isPrice = computed(() => /^(mean|median)_price$/.test(props.measure))
const picked = ref<number | null>(null)
watch(ask, () => (picked.value = null))
const last = (i: number) => i === bins.value.length - 1
const words = (i: number) =>
  `${shownAs(bins.value[i]!.low, unit.value)} to ${shownAs(bins.value[i]!.high, unit.value)}`
const middle = computed(() => {
  const v = spread.data.value?.value.value
  const [first, end] = [bins.value[0], bins.value.at(-1)]
  if (v == null || !first || !end) return null
  const i = bins.value.findIndex((b, k) => v >= b.low && (v < b.high || last(k)))
  const b = bins.value[i]
  return b ? (100 * (i + (v - b.low) / (b.high - b.low))) / bins.value.length : null
})
const homes = computed(() => {
  const all = (spread.data.value?.records ?? []).map((r, i) => ({ r, v: spread.data.value!.values[i]! }))
  const b = picked.value === null ? null : bins.value[picked.value]
  return b ? all.filter(({ v }) => v >= b.low && (v < b.high || last(picked.value!))) : all
})
</script>

<template>
  <div class="spread">
    <p v-if="spread.isError.value" class="lamp" role="alert">{{ spread.error.value?.message }}</p>
    <p v-else-if="spread.data.value && !bins.length" class="quiet">No value stands behind it here.</p>
    <template v-else-if="spread.data.value">
      <p>
        {{ localHead(spread.data.value.label) }}, {{ told.span }}:
        <b>{{ shownAs(spread.data.value.value.value, unit) }}</b> of
        {{ number(spread.data.value.value.n) }} homes.
      </p>
      <div class="bars" role="group" :aria-label="`How the values lie: ${spread.data.value.label}`">
        <PressArea
          v-for="(b, i) in bins"
          :key="b.low"
          class="bin"
          :class="{ at: picked === i }"
          :aria-pressed="picked === i"
          :aria-label="`${words(i)}: ${b.n} homes`"
          :title="`${words(i)}: ${b.n} homes`"
          @click="picked = picked === i ? null : i"
        >
          <span class="small">{{ b.n || '' }}</span>
          <i :style="{ height: `${(100 * b.n) / most}%` }" />
        </PressArea>
        <span v-if="middle !== null" class="middle" :style="{ left: `${middle}%` }" aria-hidden="true" />
      </div>
      <p class="edges small quiet">
        <span>{{ shownAs(bins[0]!.low, unit) }}</span>
        <span>{{ shownAs(bins.at(-1)!.high, unit) }}</span>
      </p>
      <p class="small">
        {{
          picked === null ? `All ${homes.length}, the highest first` : `${homes.length} from ${words(picked)}`
        }}
        <LinkButton v-if="picked !== null" @click="picked = null">all</LinkButton>
        <span class="quiet"> · the line: {{ shownAs(spread.data.value.value.value, unit) }}</span>
      </p>
      <PlainTable class="small" aria-label="Homes behind the values">
        <thead>
          <tr>
            <th>Home</th>
            <th class="num">
              {{ isPrice ? 'Price' : localHead(spread.data.value.label).replace(/^(Mean|Median) /, '') }}
            </th>
            <th>Date</th>
            <th v-if="!isPrice" class="num">Price</th>
            <th class="num">Area</th>
            <th class="num">Days</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ r, v } in homes.slice(0, 200)" :key="r.listing_id">
            <td>
              <router-link
                v-if="!r.listing_id.startsWith('deed:')"
                :to="{ name: 'around', query: { kind: 'listing', key: r.listing_id } }"
                >{{ r.address || r.listing_id }}</router-link><template v-else>{{
                r.address || 'deed sale'
              }}</template>
            </td>
            <td class="num">
              <b>{{ shownAs(v, unit) }}</b>
            </td>
            <td>{{ day(r.date) }}</td>
            <td v-if="!isPrice" class="num">{{ number(r.price) }}</td>
            <td class="num">{{ sized(r.living_area, 'sq ft') }}</td>
            <td class="num">{{ r.days_on_market ?? '—' }}</td>
          </tr>
        </tbody>
      </PlainTable>
      <p v-if="homes.length > 200" class="quiet small">200 of {{ homes.length }} are listed.</p>
    </template>
  </div>
</template>

<style scoped>
.spread {
  overflow: auto;
  display: grid;
  gap: 6px;
  align-content: start;
}
.bars {
  position: relative;
  height: 170px;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  border-bottom: 1px solid rgb(var(--v-theme-slate));
}
.bin {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  align-items: end;
  justify-items: center;
  height: 170px;
  padding: 0 2px;
  cursor: pointer;
}
.bin i {
  width: 100%;
  background: rgb(var(--v-theme-rain));
  opacity: 0.75;
}
.bin:hover i,
.bin.at i {
  opacity: 1;
}
.bin.at span {
  font-weight: 700;
}
.middle {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 2px dashed rgb(var(--v-theme-cedar));
  pointer-events: none;
}
.edges {
  display: flex;
  justify-content: space-between;
}
td a {
  color: inherit;
}
</style>
