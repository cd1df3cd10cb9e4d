<script setup lang="ts">
import { vWord } from '@/shared/words/vWord'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlaceField from '@/shared/ui/fields/PlaceField.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import type { ViewTools } from './useView'
import { localHead } from '@/shared/localForm'
import { drawnWords } from '@/shared/format'

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
    together: next.length > 1 && view.value.together,
    whole: next.length > 0 && view.value.whole,
    overlay: next.length > 1 ? false : view.value.overlay,
    split: next.length > 1 ? '' : view.value.split,
  })
}
const outlines = useQuery({ queryKey: ['outlines'], queryFn: () => got(api.GET('/api/outlines')) })
const further = computed(() =>
  (outlines.data.value ?? []).map((o) => ({
    name: o.name,
    kind: o.outline_id === null ? 'circle of a workup' : 'outline of your own',
  })),
)
function lookInside(name: string) {
  const o = outlines.data.value?.find((x) => x.name === name)
  if (o) set({ shapes: o.shapes, drawn: o.drawn, places: [] })
}
const compared = computed(() => (view.value.split ? 1 : Math.min(6, (view.value.places?.length ?? 0) + 1)))
</script>

<template>
  <p class="sentence">
    <ChoiceField
      v-word="{ name: view.measures![0]! }"
      :model-value="view.measures![0]"
      aria-label="Measure"
      @chosen="setMeasure(0, $event)"
    >
      <option v-for="m in lists.measures.data.value ?? []" :key="m.name" :value="m.name">
        {{ localHead(m.label) }}
      </option>
    </ChoiceField>
    and
    <ChoiceField
      v-word="{ name: second }"
      :model-value="second"
      aria-label="Second measure"
      @chosen="setMeasure(1, $event)"
    >
      <option value="">nothing else</option>
      <option v-for="m in lists.measures.data.value ?? []" :key="m.name" :value="m.name">
        {{ localHead(m.label) }}
      </option>
    </ChoiceField>
    by
    <ChoiceField :model-value="view.by" aria-label="Period" @chosen="set({ by: $event as 'month' })">
      <option>month</option>
      <option>quarter</option>
      <option>year</option>
    </ChoiceField>
    over the last
    <ChoiceField :model-value="view.years" aria-label="Years" @chosen="set({ years: Number($event) })">
      <option v-for="n in [1, 2, 3, 5, 10]" :key="n" :value="n">
        {{ n }} {{ n === 1 ? 'year' : 'years' }}
      </option>
    </ChoiceField>
    for
    <ChoiceField :model-value="view.home_kind" aria-label="Kind of home" @chosen="set({ home_kind: $event })">
      <option value="">homes of any kind</option>
      <option v-for="(words, kind) in lists.kinds.data.value ?? {}" :key="kind" :value="kind">
        {{ words }}
      </option>
    </ChoiceField>
    in
    <template v-for="i in compared" :key="i">
      <template v-if="i > 1">{{ view.together ? ' and ' : ', ' }}</template>
      <PlaceField
        :value="view.places![i - 1] ?? ''"
        :label="i === 1 ? 'Place' : `Place ${i}`"
        :placeholder="i === 1 ? 'all of the records' : '+ compare'"
        :further="i === 1 ? further : []"
        @place="setPlace(i - 1, $event)"
        @further="lookInside"
      />
    </template>
    <template v-if="view.shapes!.length">
      ,
      <PressArea
        class="drawn"
        :aria-label="`Take away: ${drawnWords(view.drawn) || 'inside a drawn area'}`"
        @click="set({ shapes: [], drawn: '' })"
      >
        {{ drawnWords(view.drawn) || 'inside a drawn area' }} ×
      </PressArea>
    </template>
    <LinkButton v-else class="small draw" @click="emit('draw')">or draw it</LinkButton>, split by
    <ChoiceField
      :model-value="view.split"
      aria-label="Split by"
      @chosen="set({ split: $event as 'price', overlay: false })"
    >
      <option value="">nothing</option>
      <option v-for="(words, name) in SPLITS" :key="name" :value="name">{{ words }}</option></ChoiceField
    >.
  </p>
</template>

<style scoped>
.sentence {
  font-size: var(--title-s);
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
.sentence select {
  max-width: 100%;
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
