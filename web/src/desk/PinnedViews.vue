<script setup lang="ts">
import { useHomeKinds } from '@/shared/useFields'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { shownAs } from '@/market/useView'
import { localHead } from '@/shared/localForm'
import { drawnWords } from '@/shared/format'

/** Pinned market views as small charts: newest twelve months and their change on the year. */
const views = useQuery({ queryKey: ['views'], queryFn: () => got(api.GET('/api/views')) })
const pinned = computed(() => (views.data.value ?? []).filter((v) => v.pinned).slice(0, 6))
const told = useQuery({
  queryKey: ['pinned', computed(() => pinned.value.map((v) => v.view))],
  queryFn: () => Promise.all(pinned.value.map((v) => got(api.POST('/api/market/view', { body: v.view })))),
  enabled: computed(() => pinned.value.length > 0),
})
const kinds = useHomeKinds()
/** What a tile shows: measure, kind of home, place, period. */
function what(i: number): string {
  const { view } = pinned.value[i]!
  const label = localHead(told.data.value?.[i]?.lines[0]?.label ?? '')
  const place =
    view.places?.join(', ') ||
    (view.shapes?.length ? drawnWords(view.drawn) || 'a drawn area' : 'all of the records')
  return [label, kinds.data.value?.[view.home_kind ?? ''] ?? 'homes of any kind', place, `by ${view.by}`]
    .filter(Boolean)
    .join(' · ')
}
const W = 150
const H = 34
function path(i: number): string {
  const values = told.data.value?.[i]?.lines[0]?.points.map((p) => p?.value ?? null) ?? []
  const known = values.filter((v): v is number => v !== null)
  const [low, high] = [Math.min(...known), Math.max(...known)]
  let pen = 'M'
  return values
    .map((v, k) => {
      if (v === null) {
        pen = 'M'
        return ''
      }
      const at = `${pen}${((k / Math.max(1, values.length - 1)) * W).toFixed(1)} ${(H - 3 - ((v - low) / (high - low || 1)) * (H - 6)).toFixed(1)}`
      pen = 'L'
      return at
    })
    .join('')
}
</script>

<template>
  <section v-if="pinned.length" class="pins mt-8" aria-label="Pinned market views">
    <router-link
      v-for="(v, i) in pinned"
      :key="v.view_id"
      class="sheet pin"
      :to="{ name: 'market', query: { view: JSON.stringify(v.view) } }"
    >
      <span class="name">{{ v.name }}</span>
      <span class="quiet small what">{{ what(i) }}</span>
      <b>{{ shownAs(told.data.value?.[i]?.newest, told.data.value?.[i]?.lines[0]?.unit ?? '') }}</b>
      <span class="quiet small">
        {{ told.data.value?.[i]?.newest_over }}
        <template v-if="told.data.value?.[i]?.change">
          · {{ told.data.value[i]!.change!.words }} on the year
        </template>
      </span>
      <svg :viewBox="`0 0 ${W} ${H}`" aria-hidden="true"><path :d="path(i)" /></svg>
    </router-link>
  </section>
</template>

<style scoped>
.pins {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 14px;
}
.pin {
  display: grid;
  padding: 12px 14px 8px;
  color: inherit;
  text-decoration: none;
}
.name {
  font-size: var(--text-s);
}
b {
  font-size: var(--title);
}
svg {
  width: 100%;
  margin-top: 6px;
}
path {
  fill: none;
  stroke: rgb(var(--v-theme-rain));
  stroke-width: 1.6;
}
</style>
