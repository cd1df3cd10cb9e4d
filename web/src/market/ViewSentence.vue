<script setup lang="ts">
import { computed } from 'vue'
import PlaceField from '@/shared/PlaceField.vue'
import type { ViewTools } from './useView'

/** The view as a sentence whose parts are chosen in place. */
const props = defineProps<{ tools: ViewTools }>()
const emit = defineEmits<{ draw: [] }>()
const { view, lists, set } = props.tools
const SPLITS = {
  living_area: 'size',
  price: 'price',
  year_built: 'age',
  lot_size_square_feet: 'lot',
  seller: 'seller',
}
const chosen = (event: Event) => (event.target as HTMLSelectElement).value
const second = computed(() => view.value.measures![1] ?? '')
function setMeasure(i: number, name: string) {
  const next = [...view.value.measures!]
  if (i === 1 && !name) next.splice(1, 1)
  else next[i] = name
  set({ measures: [...new Set(next)] })
}
function setPlace(i: number, name: string) {
  const next = [...view.value.places!]
  if (name.trim()) next[i] = name.trim()
  else next.splice(i, 1)
  set({
    places: [...new Set(next)],
    overlay: next.length > 1 ? false : view.value.overlay,
    split: next.length > 1 ? '' : view.value.split,
  })
}
const compared = computed(() => (view.value.split ? 1 : Math.min(6, (view.value.places?.length ?? 0) + 1)))
</script>

<template>
  <p class="sentence">
    <select :value="view.measures![0]" aria-label="Measure" @change="setMeasure(0, chosen($event))">
      <option v-for="m in lists.measures.data.value ?? []" :key="m.name" :value="m.name">
        {{ m.label }}
      </option>
    </select>
    and
    <select :value="second" aria-label="Second measure" @change="setMeasure(1, chosen($event))">
      <option value="">nothing else</option>
      <option v-for="m in lists.measures.data.value ?? []" :key="m.name" :value="m.name">
        {{ m.label }}
      </option>
    </select>
    by
    <select :value="view.by" aria-label="Period" @change="set({ by: chosen($event) as 'month' })">
      <option>month</option>
      <option>quarter</option>
      <option>year</option>
    </select>
    over the last
    <select :value="view.years" aria-label="Years" @change="set({ years: Number(chosen($event)) })">
      <option v-for="n in [1, 2, 3, 5, 10]" :key="n" :value="n">
        {{ n }} {{ n === 1 ? 'year' : 'years' }}
      </option>
    </select>
    for
    <select :value="view.home_kind" aria-label="Kind of home" @change="set({ home_kind: chosen($event) })">
      <option value="">homes of any kind</option>
      <option v-for="(words, kind) in lists.kinds.data.value ?? {}" :key="kind" :value="kind">
        {{ words }}
      </option>
    </select>
    in
    <template v-for="i in compared" :key="i">
      <template v-if="i > 1">, </template>
      <PlaceField
        :value="view.places![i - 1] ?? ''"
        :label="i === 1 ? 'Place' : `Place ${i}`"
        :placeholder="i === 1 ? 'all of the records' : '+ compare'"
        @place="setPlace(i - 1, $event)"
      />
    </template>
    <template v-if="view.shapes!.length">
      ,
      <button
        type="button"
        class="drawn"
        :aria-label="`Take away: ${view.drawn || 'inside a drawn area'}`"
        @click="set({ shapes: [], drawn: '' })"
      >
        {{ view.drawn || 'inside a drawn area' }} ×
      </button>
    </template>
    <button v-else type="button" class="link small draw" @click="emit('draw')">or draw it</button>, split by
    <select
      :value="view.split"
      aria-label="Split by"
      @change="set({ split: chosen($event) as 'price', overlay: false })"
    >
      <option value="">nothing</option>
      <option v-for="(words, name) in SPLITS" :key="name" :value="name">{{ words }}</option></select
    >.
  </p>
</template>

<style scoped>
.sentence {
  font-size: 17px;
  line-height: 1.75;
}
.draw {
  margin-left: 8px;
}
.sentence :deep(input) {
  line-height: 1.3;
  padding: 0 2px 0 6px;
}
.sentence select,
.sentence :deep(input),
.drawn {
  font-weight: 600;
  border-bottom: 2px solid rgb(var(--v-theme-rain));
  max-width: 240px;
}
select,
.sentence :deep(input) {
  field-sizing: content;
  color: inherit;
  background: rgb(var(--v-theme-mist));
}
select {
  cursor: pointer;
}
.sentence :deep(input)::placeholder {
  color: inherit;
  opacity: 1;
}
.drawn {
  cursor: pointer;
  background: rgb(var(--v-theme-mist));
  padding: 0 4px;
}
</style>
