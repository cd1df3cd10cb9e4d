<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { money, perSqft, signedPct, number } from '@/shared/format'
import { markBody } from '@/shared/map/marks'
import { useLight } from '@/shared/style/useTheme'
import { useRail } from '../useRail'
import { useWorkup } from '../useWorkup'
import { localHead } from '@/shared/localForm'

/** The price rail grown tall: a row for each comp, each way to the number and each competing home, on one scale. */
const { lit, found, state } = useWorkup()
const { tokens } = useLight()
const box = ref<HTMLElement>()
const width = ref(700)
const NAMES = 250
const FIGURES = 84
const { price, list, span, place, ticks } = useRail(() => width.value)
const picked = ref<string | null>(null)

interface Row {
  key: string
  group: 'comp' | 'way' | 'rival'
  words: string
  at: number
  from?: number
  kind: string
  note: string
}
const RIVALS = 8
const all = ref(false)
const competing = computed(() =>
  (found.data.value?.candidates ?? [])
    .filter((c) => c.price && (c.kind === 'for_sale' || c.kind === 'under_contract'))
    .sort((a, b) => b.likeness - a.likeness),
)
const rows = computed<Row[]>(() => {
  const comps = (price.value?.comps ?? [])
    .map((c) => ({
      key: c.listing_id,
      group: 'comp' as const,
      words: c.address || c.listing_id,
      at: c.adjusted_price,
      from: c.close_price,
      kind: 'sold',
      note: `paid ${money(c.close_price)}, ${signedPct(c.net_pct)} net → ${money(c.adjusted_price)}; weight ${number(100 * c.weight, 1)} %`,
    }))
    .sort((a, b) => a.at - b.at)
  const ways = (price.value?.methods ?? []).map((m) => ({
    key: m.name,
    group: 'way' as const,
    words: m.label,
    at: m.shown,
    kind: 'way',
    note: m.formula,
  }))
  const rivals = competing.value
    .slice(0, all.value ? undefined : RIVALS)
    .map((c) => ({
      key: c.listing_id,
      group: 'rival' as const,
      words: c.address || c.listing_id,
      at: c.price as number,
      kind: c.kind,
      note: `${c.kind === 'for_sale' ? 'for sale' : 'under contract'} at ${money(c.price)}${c.price_per_sqft ? `, ${perSqft(c.price_per_sqft)} a ${localHead('sq ft')}` : ''}${c.days_on_market == null ? '' : `, ${c.days_on_market} days`}`,
    }))
    .sort((a, b) => a.at - b.at)
  return [...ways, ...comps, ...rivals]
})
const TITLES = { way: 'Ways to the number', comp: 'Sold, paid → adjusted', rival: 'Competing now' }
const ROW = 21
const placed = computed(() => {
  let top = 26
  let group = ''
  return rows.value.map((row) => {
    let title = ''
    if (row.group !== group) {
      title = TITLES[row.group]
      top += group ? 30 : 0
      group = row.group
      top += 6
    }
    const out = { ...row, y: top, title }
    top += ROW
    return out
  })
})
const height = computed(() => (placed.value.at(-1)?.y ?? 0) + 34)
const value = computed(() => price.value?.indicated_value ?? null)
const clamp = (v: number) => Math.max(4, Math.min(width.value - 4, place(v)))
const outside = (v: number) => (span.value && v < span.value.low ? '‹ ' : '')
const beyond = (v: number) => (span.value && v > span.value.high ? ' ›' : '')
const note = computed(() => placed.value.find((r) => r.key === picked.value))

let watcher: ResizeObserver
onMounted(() => {
  watcher = new ResizeObserver(
    () => (width.value = Math.max(300, (box.value?.clientWidth ?? 1000) - NAMES - FIGURES)),
  )
  if (box.value) watcher.observe(box.value)
})
onBeforeUnmount(() => watcher.disconnect())
const short = (r: { words: string }) => (r.words.length > 38 ? `${r.words.slice(0, 37)}…` : r.words)
const figure = (r: { at: number }) => `${outside(r.at)}${money(r.at)}${beyond(r.at)}`
const causes = computed(() => price.value?.range_causes ?? [])
</script>

<template>
  <section v-if="span && rows.length" ref="box" aria-labelledby="tall" class="tall">
    <h2 id="tall">Everything on one scale</h2>
    <p v-if="competing.length > RIVALS" class="small quiet">
      Of the {{ competing.length }} that compete, {{ all ? 'all' : `the ${RIVALS} most alike` }} are shown.
      <LinkButton @click="all = !all">
        {{ all ? 'Only the most alike' : 'Show all' }}
      </LinkButton>
    </p>
    <div class="drawing">
      <p v-if="note" class="small note sheet" role="status" :style="{ top: `${note.y + ROW + 2}px` }">
        <b>{{ note.words }}.</b> {{ note.note }}
      </p>
      <svg
        :width="NAMES + width + FIGURES"
        :height="height"
        role="group"
        aria-label="Comps, ways to the number and competing homes by price"
      >
        <g :transform="`translate(${NAMES} 0)`">
          <rect
            v-if="price?.range"
            class="glide"
            :x="place(price.range.low)"
            y="20"
            :width="Math.max(0, place(price.range.high) - place(price.range.low))"
            :height="height - 46"
            :fill="tokens.moss"
            opacity="0.1"
          />
          <g v-for="t in ticks" :key="t">
            <path :d="`M${place(t)} 20V${height - 26}`" :stroke="tokens.line" />
            <text :x="place(t)" :y="height - 10" font-size="11" text-anchor="middle" :fill="tokens.quiet">
              {{ money(t) }}
            </text>
          </g>
          <path
            v-if="value"
            class="glide"
            :d="`M${place(value)} 18V${height - 26}`"
            :stroke="tokens.moss"
            stroke-width="2.5"
          />
          <text
            v-if="value"
            :x="place(value)"
            y="13"
            font-size="12"
            font-weight="600"
            text-anchor="middle"
            :fill="tokens.moss"
          >
            {{ money(value) }}
          </text>
          <path
            v-if="list"
            class="glide"
            :d="`M${place(list)} 18V${height - 26}`"
            :stroke="tokens.cedar"
            stroke-width="2"
            stroke-dasharray="5 3"
          />
        </g>
        <template v-for="r in placed" :key="`title ${r.key}`">
          <text v-if="r.title" x="0" :y="r.y - 8" font-size="11" font-weight="600" :fill="tokens.quiet">
            {{ r.title }}
          </text>
        </template>
        <g
          v-for="r in placed"
          :key="r.key"
          class="row"
          role="button"
          tabindex="0"
          :aria-pressed="picked === r.key"
          @mouseenter="lit = r.group === 'way' ? null : r.key"
          @mouseleave="lit = null"
          @click="picked = picked === r.key ? null : r.key"
          @keydown.enter.space.prevent="picked = picked === r.key ? null : r.key"
        >
          <rect
            x="0"
            :y="r.y - 1"
            :width="NAMES + width + FIGURES"
            :height="ROW"
            :fill="lit === r.key || picked === r.key ? tokens.mist : 'transparent'"
            opacity="0.55"
          />
          <text
            x="0"
            :y="r.y + 14"
            font-size="13"
            :font-weight="r.key === 'adjusted_comps' ? 600 : 400"
            :fill="lit === r.key ? tokens.cedar : tokens.slate"
          >
            {{ short(r) }}
          </text>
          <g :transform="`translate(${NAMES} ${r.y + 10})`">
            <template v-if="r.from !== undefined">
              <path :d="`M${clamp(r.from)} 0H${clamp(r.at)}`" :stroke="tokens.slate" opacity="0.5" />
              <circle :cx="clamp(r.from)" r="2.5" :fill="tokens.quiet" />
              <circle
                class="glide"
                :cx="clamp(r.at)"
                r="5"
                :fill="lit === r.key ? tokens.cedar : tokens.slate"
              />
            </template>
            <path
              v-else-if="r.group === 'way'"
              class="glide"
              :d="`M${clamp(r.at)} -7v14`"
              :stroke="r.key === 'adjusted_comps' ? tokens.moss : tokens.slate"
              :stroke-width="r.key === 'adjusted_comps' ? 5 : 3"
            />
            <!-- eslint-disable vue/no-v-html -- our own drawing -->
            <g
              v-else
              v-html="
                markBody(r.kind, clamp(r.at), 0, 5, lit === r.key ? tokens.cedar : tokens.rain, tokens.paper)
              "
            />
            <!-- eslint-enable vue/no-v-html -->
          </g>
          <text
            :x="NAMES + width + FIGURES - 2"
            :y="r.y + 14"
            font-size="13"
            text-anchor="end"
            :fill="tokens.slate"
          >
            {{ figure(r) }}
          </text>
        </g>
      </svg>
    </div>
    <p class="small quiet">
      Press a row for its formula. The band is the range, the moss line the indicated value<template
        v-if="state?.list_price"
        >, the dashed line the list price</template
      >.
    </p>
    <p v-for="c in causes" :key="c.name" class="small why">
      The range is {{ Math.round(100 * (c.factor - 1)) }} % wider than usual here: {{ c.says }}.
      <span class="quiet">{{ c.do }}</span>
    </p>
  </section>
</template>

<style scoped>
.tall {
  margin-top: 26px;
}
h2 {
  margin-bottom: 8px;
}
svg {
  display: block;
  max-width: 100%;
}
.row {
  cursor: pointer;
}
.row:focus-visible {
  outline: 2px solid rgb(var(--v-theme-cedar));
}
.drawing {
  position: relative;
}
.note {
  position: absolute;
  left: 250px;
  z-index: 2;
  max-width: min(70ch, calc(100% - 260px));
  padding: 5px 10px;
  box-shadow: 0 4px 12px rgba(20, 40, 50, 0.16);
}
.glide {
  transition: all 0.35s ease;
}
</style>
