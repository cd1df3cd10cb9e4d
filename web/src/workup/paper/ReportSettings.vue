<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import OrderedChoice from '@/shared/ui/fields/OrderedChoice.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'
import { useWorkup } from '../useWorkup'
import KeptLayouts from './KeptLayouts.vue'
import { usePaper } from './usePaper'

/** What the report says and shows: its layout, for whom, the price, facts, and what is written on the page in sight. */
defineProps<{ current: string | undefined }>()
const { state, send, worth } = useWorkup()
const { known, paper, on, label, layouts, speaks, whose, set } = usePaper()
const LAYOUT_WORDS: Record<string, string> = {
  full: 'Long report',
  short: 'Short',
  three_pages: 'Glance and grid',
  one_page: 'One page',
  statistics: 'Statistics only',
  appraiser: 'For an appraiser',
  while_for_sale: 'While for sale',
}
const clients = useQuery({ queryKey: ['clients'], queryFn: () => got(api.GET('/api/clients')) })
const bulletins = useQuery({ queryKey: ['bulletins'], queryFn: () => got(api.GET('/api/bulletins')) })
const ways = computed(() => worth.data.value?.price.methods ?? [])
const leftOut = computed(() => paper.value.ways_left_out ?? [])
const showWay = (name: string, shown?: boolean) =>
  set({ ways_left_out: shown ? leftOut.value.filter((n) => n !== name) : [...leftOut.value, name] })
const as = (layout: string) => layouts.value[layout]?.join() === on.value.join()
</script>

<template>
  <section>
    <h2 class="mb-2">The report</h2>
    <div class="layouts" role="group" aria-label="Layouts">
      <PressArea
        v-for="(pages, name) in layouts"
        :key="name"
        :aria-pressed="as(String(name))"
        @click="set({ pages })"
      >
        {{ LAYOUT_WORDS[name] ?? name }} <span class="quiet">{{ pages.length }}</span>
      </PressArea>
    </div>
    <KeptLayouts :paper="paper" @take="set($event)" />
    <label class="field">
      Prepared for
      <TypedInput
        :value="state?.client"
        maxlength="200"
        list="known-clients"
        @typed="send({ change: 'set_client', client: $event })"
      />
    </label>
    <datalist id="known-clients">
      <option v-for="c in clients.data.value ?? []" :key="c.client_id" :value="c.name">{{ c.email }}</option>
    </datalist>
    <label class="field">
      Title on the cover
      <TypedInput :value="paper.title" maxlength="120" @typed="set({ title: $event })" />
      <span v-if="!paper.title" class="quiet small"
        >“What this home should be offered at”, unless you say else.</span
      >
    </label>
    <label class="field">
      The price
      <ChoiceField :model-value="paper.price" @chosen="set({ price: $event as 'shown' })">
        <option value="shown">is shown</option>
        <option value="blank">is left as a line to write on</option>
        <option value="hidden">is left out</option>
      </ChoiceField>
    </label>
    <label v-if="on.includes('cover') && paper.price !== 'hidden'" class="tick">
      <CheckBox :model-value="paper.cover_price" @update:model-value="set({ cover_price: $event })" />
      price on the cover
    </label>
    <label class="tick">
      <CheckBox :model-value="paper.pictures" @update:model-value="set({ pictures: $event })" />
      pictures
    </label>
    <label class="tick">
      <CheckBox :model-value="paper.formulas" @update:model-value="set({ formulas: $event })" />
      formulas
    </label>
    <details v-if="ways.length" class="ways">
      <summary>Ways to the number: {{ ways.length - leftOut.length }} of {{ ways.length }} shown</summary>
      <label v-for="m in ways" :key="m.name" class="tick">
        <CheckBox :model-value="!leftOut.includes(m.name)" @update:model-value="showWay(m.name, $event)" />
        {{ m.label }}
      </label>
    </details>
    <OrderedChoice
      v-if="on.includes('home')"
      label="Facts of the home"
      :all="known.data.value?.facts ?? {}"
      :chosen="paper.facts ?? []"
      @choose="set({ facts: $event })"
    />
    <OrderedChoice
      v-if="on.includes('statistics')"
      label="Lines of the statistics"
      :all="known.data.value?.statistics ?? {}"
      :chosen="paper.statistics ?? []"
      @choose="set({ statistics: $event })"
    />
    <label v-if="current && speaks(current)" class="field">
      “{{ label(current) }}” speaks of
      <ChoiceField
        :model-value="paper.speaks_of?.[current] ?? 'chosen'"
        @chosen="set({ speaks_of: { ...paper.speaks_of, [current]: $event as 'found' } })"
      >
        <option value="chosen">the chosen</option>
        <option value="found">all found, without what is set aside</option>
      </ChoiceField>
      <span v-if="whose(current)" class="quiet">Now: {{ whose(current) }}.</span>
    </label>
    <label v-if="current && !current.startsWith('own:')" class="field">
      Comment on “{{ label(current) }}”
      <TypedInput
        :value="paper.notes?.[current] ?? ''"
        :rows="2"
        maxlength="2000"
        @typed="set({ notes: { ...paper.notes, [current]: $event } })"
      />
    </label>
    <label v-if="on.includes('letter')" class="field">
      Letter
      <TypedInput
        :value="paper.letter"
        :rows="5"
        maxlength="4000"
        placeholder="Left empty, a short one is written for you."
        @typed="set({ letter: $event })"
      />
    </label>
    <label v-if="on.includes('bulletin')" class="field">
      Bulletin
      <ChoiceField :model-value="paper.bulletin ?? ''" @chosen="set({ bulletin: Number($event) || null })">
        <option value="">none chosen</option>
        <option v-for="l in bulletins.data.value ?? []" :key="l.bulletin_id" :value="l.bulletin_id">
          {{ l.bulletin.title }}
        </option>
      </ChoiceField>
    </label>
  </section>
</template>

<style scoped>
.ways summary {
  cursor: pointer;
  padding: 4px 0;
}
.layouts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin-bottom: 12px;
}
.layouts button {
  padding: 5px 8px;
  border: var(--line);
  border-radius: var(--corner);
  font-size: var(--text-s);
}
.layouts button[aria-pressed='true'] {
  background: rgb(var(--v-theme-mist));
  font-weight: 600;
}
.field {
  display: grid;
  gap: 2px;
  margin-bottom: 8px;
  font-size: var(--small);
}
.field :is(input, select, textarea) {
  padding: 5px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
  width: 100%;
  min-width: 0;
  font-size: var(--text);
  background: transparent;
}
.tick {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  margin-right: 16px;
  font-size: var(--text-s);
}
</style>
