<script setup lang="ts">
import { computed, ref } from 'vue'
import { useFields } from '@/shared/useFields'
import type { ViewTools } from './useView'

/** What is added to the sentence: conditions on any field, smoothing, years laid over each other, an outside series. */
const props = defineProps<{ tools: ViewTools }>()
const { view, lists, set } = props.tools
const fields = useFields()
const chosen = (event: Event) => (event.target as HTMLSelectElement).value
const OPS: Record<string, string> = {
  '>=': 'at least',
  '<=': 'at most',
  '=': 'is',
  '!=': 'is not',
  in: 'one of',
  like: 'like',
}
const asked = computed(() => [
  { name: 'price', label: 'Price' },
  { name: 'seller', label: 'Seller (owner, builder, bank, auction)' },
  ...(fields.data.value ?? [])
    .filter((f) => f.searched && !['date', 'time', 'text'].includes(f.kind))
    .map((f) => ({ name: f.name, label: f.label })),
])
const adding = ref(false)
const name = ref('living_area')
const op = ref('>=')
const value = ref('')
function add() {
  if (!value.value.trim()) return
  set({ where: [...view.value.where!, `${name.value} ${op.value} ${value.value.trim()}`] })
  value.value = ''
  adding.value = false
}
function words(condition: string): string {
  const [, field, sign, rest] = /^(\S+) (\S+) (.*)$/.exec(condition) ?? []
  const label = asked.value.find((f) => f.name === field)?.label.split(' (')[0] ?? field
  return `${label} ${OPS[sign ?? ''] ?? sign} ${rest}`
}
</script>

<template>
  <div class="options small">
    <span v-for="(c, i) in view.where" :key="c" class="chip">
      {{ words(c) }}
      <button
        type="button"
        :aria-label="`Take away: ${words(c)}`"
        @click="set({ where: view.where!.filter((_, k) => k !== i) })"
      >
        ×
      </button>
    </span>
    <form v-if="adding" class="adding" @submit.prevent="add" @keydown.esc="adding = false">
      <select v-model="name" aria-label="Field">
        <option v-for="f in asked" :key="f.name" :value="f.name">{{ f.label }}</option>
      </select>
      <select v-model="op" aria-label="Comparison">
        <option v-for="(w, sign) in OPS" :key="sign" :value="sign">{{ w }}</option>
      </select>
      <input v-model="value" aria-label="Value" placeholder="value" />
      <button type="submit" class="do">Add</button>
    </form>
    <button v-else type="button" class="link" @click="adding = true">+ condition</button>
    <label>
      smoothed over
      <select
        :value="view.smooth"
        aria-label="Smoothing"
        @change="set({ smooth: Number(chosen($event)) as 1 })"
      >
        <option :value="1">nothing</option>
        <option :value="3">3 periods</option>
        <option :value="12">12 periods</option>
      </select>
    </label>
    <label :class="{ quiet: view.places!.length > 1 || view.split }">
      <input
        type="checkbox"
        :checked="view.overlay"
        :disabled="view.places!.length > 1 || !!view.split || view.by === 'year'"
        @change="set({ overlay: ($event.target as HTMLInputElement).checked })"
      />
      years over each other
    </label>
    <label>
      over it
      <select :value="view.series" aria-label="Outside series" @change="set({ series: chosen($event) })">
        <option value="">no outside series</option>
        <option v-for="s in lists.series.data.value ?? []" :key="s" :value="s">{{ s }}</option>
      </select>
    </label>
    <label title="Sales known only from deed records">
      <input
        type="checkbox"
        :checked="view.deeds"
        @change="set({ deeds: ($event.target as HTMLInputElement).checked })"
      />
      deed sales too
    </label>
  </div>
</template>

<style scoped>
.options {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
}
.options select,
.adding input {
  field-sizing: content;
  color: inherit;
  background: rgb(var(--v-theme-mist));
  border-bottom: 1px solid rgb(var(--v-theme-rain));
  padding: 0 2px;
}
.adding {
  display: flex;
  gap: 6px;
}
.adding input {
  min-width: 90px;
}
.chip {
  padding: 1px 8px;
  border-radius: 10px;
  background: rgb(var(--v-theme-mist));
}
.chip button {
  cursor: pointer;
}
</style>
