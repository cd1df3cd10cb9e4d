<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import OrderedChoice from '@/shared/ui/OrderedChoice.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { mdiDownload, mdiSend } from '@mdi/js'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, got } from '@/shared/api/client'
import { useWorkup } from '../useWorkup'
import AgentCard from './AgentCard.vue'
import HandOver from './HandOver.vue'
import KeptLayouts from './KeptLayouts.vue'
import OwnPages from './OwnPages.vue'
import { usePaper } from './usePaper'

const { id, state, send, worth, saving } = useWorkup()
const { known, paper, on, off, label, layouts, picture, set, move, toggle } = usePaper()
const LAYOUT_WORDS: Record<string, string> = {
  full: 'Long report',
  three_pages: 'Three pages',
  one_page: 'One page',
  statistics: 'Statistics only',
}
const letters = useQuery({ queryKey: ['letters'], queryFn: () => got(api.GET('/api/letters')) })
const handing = ref(false)
const at = ref(0)
watch(on, (pages) => (at.value = Math.min(at.value, pages.length - 1)))
const current = computed(() => on.value[at.value])
const dragged = ref<string | null>(null)
function drop(to: number) {
  if (dragged.value) move(dragged.value, to)
  dragged.value = null
}
function key(event: KeyboardEvent, page: string, i: number) {
  if (event.altKey && event.key === 'ArrowUp') move(page, i - 1)
  else if (event.altKey && event.key === 'ArrowDown') move(page, i + 1)
  else if (event.key === 'Delete') toggle(page)
  else return
  event.preventDefault()
}
const ways = computed(() => worth.data.value?.price.methods ?? [])
const leftOut = computed(() => paper.value.ways_left_out ?? [])
const showWay = (name: string, shown?: boolean) =>
  set({ ways_left_out: shown ? leftOut.value.filter((n) => n !== name) : [...leftOut.value, name] })
const as = (layout: string) => layouts.value[layout]?.join() === on.value.join()
</script>

<template>
  <div class="paper">
    <nav class="pages" aria-label="Pages of the report">
      <div
        v-for="(page, i) in on"
        :key="page"
        class="one"
        draggable="true"
        @dragstart="dragged = page"
        @dragover.prevent
        @drop.prevent="drop(i)"
      >
        <PressArea
          :class="{ at: i === at }"
          :aria-current="i === at"
          title="Drag, or Alt with the arrows, to move it; Delete to leave it out"
          @click="at = i"
          @keydown="key($event, page, i)"
        >
          <img :src="picture(page)" alt="" loading="lazy" />
          <span>{{ i + 1 }} {{ label(page) }}</span>
        </PressArea>
        <PressArea
          v-if="on.length > 1"
          class="away"
          :aria-label="`Leave out ${label(page)}`"
          @click="toggle(page)"
        >
          ×
        </PressArea>
      </div>
      <div v-if="off.length" class="off">
        <p class="quiet small">Left out</p>
        <LinkButton v-for="page in off" :key="page" class="small" @click="toggle(page)">
          + {{ label(page) }}
        </LinkButton>
      </div>
    </nav>
    <div class="page" tabindex="0" role="region" aria-label="The page as it will print">
      <img v-if="current" :src="picture(current)" :alt="`Page ${at + 1}: ${label(current)}`" />
    </div>
    <aside class="side">
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
          @typed="send({ change: 'set_client', client: $event })"
        />
      </label>
      <label class="field">
        Title on the cover
        <TypedInput
          :value="paper.title"
          placeholder="What this home should be offered at"
          maxlength="120"
          @typed="set({ title: $event })"
        />
      </label>
      <label class="field">
        The price
        <ChoiceField :model-value="paper.price" @chosen="set({ price: $event as 'shown' })">
          <option value="shown">is shown</option>
          <option value="blank">is left as a line, to write in by hand</option>
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
      <label v-if="on.includes('market_letter')" class="field">
        Market letter
        <ChoiceField
          :model-value="paper.market_letter ?? ''"
          @chosen="set({ market_letter: Number($event) || null })"
        >
          <option value="">none chosen</option>
          <option v-for="l in letters.data.value ?? []" :key="l.letter_id" :value="l.letter_id">
            {{ l.letter.title }}
          </option>
        </ChoiceField>
      </label>
      <OwnPages @added="move($event, on.length)" />
      <AgentCard />
      <ActButton class="mt-4" block :icon="mdiSend" strong @click="handing = true"> Hand it over </ActButton>
      <ActButton
        class="mt-2"
        block
        :icon="mdiDownload"
        :href="`/api/workups/${id}/report.pdf`"
        :disabled="saving"
        download
      >
        Download PDF
      </ActButton>
      <p class="small mt-2 others">
        or as
        <a class="link" :href="`/api/workups/${id}/report.html`" download>web page</a>,
        <a class="link" :href="`/api/workups/${id}/report.xlsx`" download>workbook</a>
      </p>
      <p class="quiet small mt-3">
        A comparative market analysis, not an appraisal. Every page says so. No listing agent’s and no owner’s
        name comes into it.
      </p>
    </aside>
    <HandOver v-if="handing" @close="handing = false" />
  </div>
</template>

<style scoped>
.ways summary {
  cursor: pointer;
  padding: 4px 0;
}
.paper {
  display: grid;
  grid-template-columns: 158px minmax(0, 1fr) 268px;
  height: 100%;
  background: rgb(var(--v-theme-mist));
}
.pages {
  overflow: auto;
  padding: 16px 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.one {
  position: relative;
}
.one button:first-child {
  width: 100%;
  cursor: grab;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
}
.pages img {
  display: block;
  width: 100%;
  aspect-ratio: 17 / 22;
  object-fit: cover;
  object-position: top;
  background: #fff;
  border: var(--line);
}
.pages .at {
  color: rgb(var(--v-theme-on-surface)) !important;
  font-weight: 600;
}
.pages .at img {
  outline: 2px solid rgb(var(--v-theme-on-surface));
}
.away {
  position: absolute;
  top: 2px;
  right: 2px;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  background: rgb(var(--v-theme-surface));
  border: var(--line);
  opacity: 0;
}
.one:hover .away,
.away:focus-visible {
  opacity: 1;
}
.off {
  display: grid;
  justify-items: start;
  gap: 3px;
}
.page {
  overflow: auto;
  padding: 16px;
  text-align: center;
}
.page img {
  width: 100%;
  max-width: 760px;
  background: #fff;
  box-shadow: 0 3px 18px rgba(20, 40, 50, 0.16);
}
.side {
  overflow: auto;
  padding: 16px 18px;
  background: rgb(var(--v-theme-surface));
  border-left: var(--line);
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
