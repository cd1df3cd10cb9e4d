<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { api, got } from '@/shared/api/client'
import { fact, number } from '@/shared/format'

const W = 240
const H = 44
const spreads = useQuery({ queryKey: ['spreads'], queryFn: () => got(api.GET('/api/records/spreads')) })
function bars(bins: number[]) {
  const most = Math.max(...bins, 1)
  const width = W / bins.length
  return bins.map((n, i) => ({
    x: i * width,
    width: width - 0.7,
    height: n ? Math.max(1, (n / most) * H) : 0,
  }))
}
const at = (s: { low: number; high: number }, value: number) => ((value - s.low) / (s.high - s.low || 1)) * W
</script>

<template>
  <section v-if="spreads.data.value?.length" aria-label="How values are spread">
    <h2 class="mt-5">How the values of detached homes are spread</h2>
    <p class="quiet mb-3">
      The tick is the median. Values far from all others are listed beside; look at them before you trust a
      mean.
    </p>
    <div class="spreads">
      <figure v-for="s in spreads.data.value" :key="s.field">
        <figcaption>
          <b>{{ s.label }}</b> <span class="quiet small">{{ number(s.n) }} known</span>
        </figcaption>
        <svg
          :viewBox="`0 0 ${W} ${H + 4}`"
          role="img"
          :aria-label="`${s.label}: ${fact(s.low, s.kind)} to ${fact(s.high, s.kind)}, median ${fact(s.median, s.kind)}`"
        >
          <rect
            v-for="(b, i) in bars(s.bins)"
            :key="i"
            :x="b.x"
            :y="H - b.height"
            :width="b.width"
            :height="b.height"
          />
          <line :x1="at(s, s.median)" :x2="at(s, s.median)" y1="0" :y2="H + 4" />
        </svg>
        <p class="ends small quiet">
          <span>{{ fact(s.low, s.kind) }}</span>
          <span>median {{ fact(s.median, s.kind) }}</span>
          <span>{{ fact(s.high, s.kind) }}</span>
        </p>
        <template v-if="s.beyond">
          <p class="small">{{ number(s.beyond) }} far beyond, the farthest:</p>
          <p v-for="f in s.farthest.slice(0, 3)" :key="f.key" class="small far">
            <b>{{ fact(f.value, s.kind) }}</b> <span class="quiet">{{ f.shown }}</span>
          </p>
        </template>
        <p v-else class="small quiet">none beyond the fences</p>
      </figure>
    </div>
  </section>
</template>

<style scoped>
.spreads {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 22px 32px;
}
svg {
  display: block;
  width: 100%;
  margin-top: 4px;
  overflow: visible;
}
rect {
  fill: rgb(var(--v-theme-rain));
}
line {
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.5;
}
figure {
  margin: 0;
}
.far {
  display: grid;
  grid-template-columns: 70px 1fr;
}
.ends {
  display: flex;
  justify-content: space-between;
  margin: 2px 0 4px;
}
</style>
