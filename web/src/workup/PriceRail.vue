<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { money, priced } from '@/shared/format'
import { markBody } from '@/shared/map/marks'
import { useLight } from '@/shared/style/useTheme'
import RailEnd from './RailEnd.vue'
import RailWords from './RailWords.vue'
import { useRail, WAYS } from './useRail'
import { useWorkup } from './useWorkup'

const { send, lit } = useWorkup()
const { tokens } = useLight()
const box = ref<HTMLElement>()
const width = ref(600)
const { price, above, below, waiting, list, span, place, dollarsAt, ticks, beyond, within } = useRail(
  () => width.value,
)
const LINE = 46

const dragged = ref<number | null>(null)
const shownList = computed(() => dragged.value ?? list.value)
const value = computed(() => price.value?.indicated_value ?? null)

function ask(dollars: number | null) {
  void send({ change: 'set_list_price', list_price: dollars, sure: false })
}
function startDrag(event: PointerEvent) {
  const svg = (event.currentTarget as SVGElement).ownerSVGElement ?? (event.currentTarget as SVGSVGElement)
  ;(event.currentTarget as SVGElement).setPointerCapture(event.pointerId)
  const move = (e: PointerEvent) => {
    const x = e.clientX - svg.getBoundingClientRect().left
    dragged.value = Math.max(1000, Math.round(dollarsAt(x) / 1000) * 1000)
  }
  const end = () => {
    window.removeEventListener('pointermove', move)
    window.removeEventListener('pointerup', end)
    if (dragged.value !== null) ask(dragged.value)
    window.setTimeout(() => (dragged.value = null), 400)
  }
  window.addEventListener('pointermove', move)
  window.addEventListener('pointerup', end)
}
function nudge(event: KeyboardEvent) {
  const step =
    (event.shiftKey ? 10000 : 1000) * (event.key === 'ArrowRight' || event.key === 'ArrowUp' ? 1 : -1)
  if (!event.key.startsWith('Arrow')) return
  event.preventDefault()
  event.stopPropagation()
  const base = list.value ?? value.value
  if (base) ask(Math.max(1000, base + step))
}

let watcher: ResizeObserver
onMounted(() => {
  watcher = new ResizeObserver(() => (width.value = box.value?.clientWidth ?? 600))
  if (box.value) watcher.observe(box.value)
})
onBeforeUnmount(() => watcher.disconnect())

const colour = (key: string) => (lit.value === key ? tokens.value.cedar : tokens.value.slate)
</script>

<template>
  <footer class="foot" aria-label="Price rail">
    <div ref="box" class="line">
      <svg v-if="span" :width="width" height="92" role="group" aria-label="Prices around this home">
        <rect
          v-if="price?.range"
          class="glide"
          :x="place(price.range.low)"
          :width="Math.max(0, place(price.range.high) - place(price.range.low))"
          :y="8"
          height="62"
          rx="4"
          :fill="tokens.moss"
          opacity="0.15"
        />
        <path :d="`M8 ${LINE}H${width - 8}`" :stroke="tokens.slate" stroke-width="1.3" />
        <g v-for="tick in ticks" :key="tick">
          <path :d="`M${place(tick)} ${LINE - 3}v6`" :stroke="tokens.slate" />
          <text :x="place(tick)" y="89" text-anchor="middle" font-size="11" :fill="tokens.quiet">
            {{ money(tick) }}
          </text>
        </g>
        <g v-for="(c, i) in above" :key="c.key" @mouseenter="lit = c.key" @mouseleave="lit = null">
          <path
            :d="`M${place(c.paid)} ${LINE - 11 - 8 * (i % 3)}H${place(c.adjusted)}`"
            :stroke="colour(c.key)"
            :opacity="lit === c.key ? 1 : 0.45"
          />
          <circle :cx="place(c.paid)" :cy="LINE - 11 - 8 * (i % 3)" r="2" :fill="tokens.quiet" />
          <circle
            class="glide"
            :cx="place(c.adjusted)"
            :cy="LINE - 11 - 8 * (i % 3)"
            :r="lit === c.key ? 6 : 4.5"
            :fill="colour(c.key)"
          >
            <title>{{ c.words }}</title>
          </circle>
        </g>
        <!-- eslint-disable vue/no-v-html -- our own drawing -->
        <g v-for="c in waiting" :key="c.key" @mouseenter="lit = c.key" @mouseleave="lit = null">
          <title>{{ c.words }}</title>
          <g
            v-if="within(c.price)"
            :opacity="above.length && lit !== c.key ? 0.45 : 1"
            v-html="
              markBody(
                'sold',
                place(c.price),
                LINE - (above.length ? 5 : 11),
                lit === c.key ? 6 : above.length ? 2.5 : 4,
                tokens.rain,
                tokens.paper,
              )
            "
          />
        </g>
        <g v-for="(c, i) in below" :key="c.key" @mouseenter="lit = c.key" @mouseleave="lit = null">
          <title>{{ c.words }}</title>
          <g
            v-if="within(c.price)"
            v-html="
              markBody(
                c.kind,
                place(c.price),
                LINE + 13 + 9 * (i % 2),
                lit === c.key ? 5.5 : 4,
                tokens.rain,
                tokens.paper,
              )
            "
          />
        </g>
        <!-- eslint-enable vue/no-v-html -->
        <path
          v-for="m in price?.methods.filter((x) => WAYS.includes(x.name) && within(x.value))"
          :key="m.name"
          :d="`M${place(m.value)} ${LINE - 8}v16`"
          :stroke="tokens.quiet"
          stroke-width="1.4"
        >
          <title>{{ m.label }}: {{ money(m.value) }}</title>
        </path>
        <path v-if="value" class="glide" :d="`M${place(value)} 6v66`" :stroke="tokens.moss" stroke-width="3">
          <title>Indicated {{ priced(value) }}</title>
        </path>
        <g
          v-if="shownList"
          class="handle"
          role="slider"
          tabindex="0"
          aria-label="List price"
          :aria-valuenow="shownList"
          :aria-valuetext="money(shownList)"
          :transform="`translate(${place(shownList)} 0)`"
          @pointerdown.prevent="startDrag"
          @keydown="nudge"
        >
          <rect x="-11" y="4" width="22" height="72" fill="transparent" />
          <path :d="`M0 18V74`" :stroke="tokens.cedar" stroke-width="2.5" />
          <path d="M-8 18V11L0 3l8 8v7z" :fill="tokens.cedar" :stroke="tokens.paper" />
          <title>List price {{ priced(shownList) }}: drag, or arrow keys</title>
        </g>
      </svg>
      <template v-if="span">
        <RailEnd v-if="beyond.low.length" side="low" :homes="beyond.low" :edge="span.low" />
        <RailEnd v-if="beyond.high.length" side="high" :homes="beyond.high" :edge="span.high" />
      </template>
      <p v-else class="quiet empty">Nothing stands on the rail yet: this search finds no priced home.</p>
    </div>
    <RailWords :list-price="shownList" @ask="ask" />
  </footer>
</template>

<style scoped>
.foot {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  height: 100px;
  background: rgb(var(--v-theme-surface));
  border-top: var(--line);
  box-shadow: 0 -4px 14px rgba(20, 40, 50, 0.05);
}
.line {
  position: relative;
  padding-top: 3px;
  overflow: hidden;
}
/* until its width is measured anew it hides nothing */
.line svg {
  max-width: 100%;
}
.empty {
  padding: 36px 24px;
}
.glide {
  transition: all 0.35s ease;
}
.handle {
  cursor: ew-resize;
}
</style>
