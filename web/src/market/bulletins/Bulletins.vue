<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { useBulletins, type Part } from './useBulletins'
import type { View } from './useView'

/** Bulletins of several views in an order: written once, made anew with the newest figures. */
const props = defineProps<{ view: View }>()
const { saving, all, at, bulletin, fault, version, sheets, open, begin, save, drop } = useBulletins()
const saved = useQuery({ queryKey: ['views'], queryFn: () => got(api.GET('/api/views')) })
const ADDS = {
  headline: 'headline and key figures',
  prices: 'prices and closings',
  pace: 'how fast it goes',
  places: 'place by place',
  years: 'three years',
  sold: 'what sold last',
  view: 'the view above',
  so_far: 'the year so far',
  bands: 'by size and price',
  changed: 'what changed',
} as const
const parts = computed(() => bulletin.value?.parts ?? [])
const put = (next: Part[]) => bulletin.value && save({ ...bulletin.value, parts: next })
const blank = (kind: Part['kind'], view: View, title = ''): Part => ({
  kind,
  title,
  comment: '',
  view,
  table: true,
  periods: 4,
  days: 30,
  page_break: false,
})
const READY = { one_page: 'One page', four_pages: 'Four pages', year_in_review: 'Year in review' } as const
const add = (kind: Part['kind']) => put([...parts.value, blank(kind, props.view)])
const change = (i: number, to: Partial<Part>) =>
  put(parts.value.map((x, k) => (k === i ? { ...x, ...to } : x)))
function move(i: number, by: number) {
  const next = [...parts.value]
  const [one] = next.splice(i, 1)
  next.splice(Math.max(0, Math.min(next.length, i + by)), 0, one!)
  void put(next)
}
const picked = ref('')
function addSaved() {
  const held = saved.data.value?.find((v) => String(v.view_id) === picked.value)
  if (held) void put([...parts.value, blank('view', held.view as View, held.name)])
  picked.value = ''
}
const sheetAt = (n: number) => served(`/api/bulletins/${at.value}/sheets/${n}.svg?v=${version.value}`)
</script>

<template>
  <div class="bulletins">
    <div class="sheet left">
      <p class="names">
        <LinkButton
          v-for="l in all.data.value ?? []"
          :key="l.bulletin_id"
          :aria-current="at === l.bulletin_id"
          @click="open(l.bulletin_id)"
        >
          {{ l.bulletin.title }}
        </LinkButton>
        <ActButton @click="begin()">New bulletin</ActButton>
      </p>
      <p class="names small">
        Ready for this view:
        <LinkButton v-for="(words, layout) in READY" :key="layout" @click="begin(layout, view)">
          {{ words }}
        </LinkButton>
      </p>
      <p v-if="!bulletin" class="quiet">
        A bulletin tells of a market on paper: begin with a ready one for the view above, or with an empty
        one. Its figures are always the newest.
      </p>
      <template v-else>
        <label class="field">
          <span class="quiet small">Title</span>
          <TypedInput :value="bulletin.title" maxlength="120" @typed="save({ ...bulletin, title: $event })" />
        </label>
        <label class="field">
          <span class="quiet small">Your words at the start</span>
          <TypedInput
            :value="bulletin.comment"
            :rows="3"
            maxlength="8000"
            @typed="save({ ...bulletin, comment: $event })"
          />
        </label>
        <ol aria-label="Parts of the bulletin">
          <li v-for="(item, i) in parts" :key="i">
            <p class="part">
              <TypedInput
                :value="item.title"
                :placeholder="ADDS[item.kind!]"
                :aria-label="`Heading of part ${i + 1}`"
                maxlength="120"
                @typed="change(i, { title: $event })"
              />
              <PressArea :aria-label="`Part ${i + 1} up`" :disabled="i === 0" @click="move(i, -1)">
                ↑
              </PressArea>
              <PressArea
                :aria-label="`Part ${i + 1} down`"
                :disabled="i === parts.length - 1"
                @click="move(i, 1)"
              >
                ↓
              </PressArea>
              <PressArea
                :aria-label="`Take part ${i + 1} away`"
                @click="put(parts.filter((_, k) => k !== i))"
              >
                ×
              </PressArea>
            </p>
            <TypedInput
              :value="item.comment"
              :rows="1"
              placeholder="a comment"
              :aria-label="`Comment to part ${i + 1}`"
              @typed="change(i, { comment: $event })"
            />
            <label v-if="item.kind === 'view'" class="small">
              <CheckBox :model-value="item.table" @update:model-value="change(i, { table: $event })" />
              with its figures of the last
              <NumberField
                class="days"
                :value="item.periods"
                aria-label="Periods"
                @number="$event && change(i, { periods: Math.round($event) })"
              />
              {{ item.view.by }}s
            </label>
            <label v-if="item.kind === 'changed'" class="small">
              over the last
              <NumberField
                class="days"
                :value="item.days"
                aria-label="Days"
                @number="$event && change(i, { days: Math.round($event) })"
              />
              days
            </label>
          </li>
        </ol>
        <p class="adds small">
          Add
          <LinkButton v-for="(words, kind) in ADDS" :key="kind" @click="add(kind)">
            {{ words }}
          </LinkButton>
          <ChoiceField v-model="picked" aria-label="Add a saved view" @chosen="addSaved">
            <option value="">a saved view …</option>
            <option v-for="v in saved.data.value ?? []" :key="v.view_id" :value="String(v.view_id)">
              {{ v.name }}
            </option>
          </ChoiceField>
        </p>
        <p class="give">
          <template v-if="!saving">
            <ActButton :href="served(`/api/bulletins/${at}/bulletin.pdf`)" download>PDF</ActButton>
            <ActButton :href="served(`/api/bulletins/${at}/bulletin.html`)" download>Web page</ActButton>
          </template>
          <span v-else class="quiet">Saving …</span>
          <LinkButton class="small" @click="drop">delete this bulletin</LinkButton>
        </p>
      </template>
      <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    </div>
    <div v-if="bulletin" class="right" aria-label="The bulletin as it will print" role="region" tabindex="0">
      <figure v-for="n in sheets.data.value ?? 0" :key="n">
        <img :src="sheetAt(n)" :alt="`Sheet ${n} of the bulletin`" />
        <figcaption>
          <a class="link small" :href="sheetAt(n)" :download="`bulletin-${n}.png`"
            >sheet {{ n }} as a picture</a
          >
        </figcaption>
      </figure>
    </div>
  </div>
</template>

<style scoped>
.bulletins {
  min-height: 0;
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  gap: 18px;
}
.left {
  overflow: auto;
  padding: 14px 16px;
}
.names,
.adds,
.give {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-parts: center;
}
.names {
  margin-bottom: 10px;
}
.names [aria-current='true'] {
  font-weight: 600;
  text-decoration: none;
}
.names .do {
  margin-left: auto;
}
.field {
  display: grid;
  margin-bottom: 8px;
}
input:not([type='checkbox']),
textarea {
  width: 100%;
  color: inherit;
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
}
ol {
  padding: 0;
  list-style: none;
}
li {
  padding: 8px 0;
  border-top: var(--line);
  display: grid;
  gap: 4px;
}
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, 26px);
  gap: 2px;
}
.part input {
  font-weight: 600;
}
.part button {
  cursor: pointer;
}
.part button:disabled {
  opacity: 0.3;
}
li :deep(input.days) {
  width: 5em;
}
.adds {
  padding: 10px 0;
  border-top: var(--line);
}
.adds select {
  background: rgb(var(--v-theme-mist));
  color: inherit;
}
.give {
  margin-top: 6px;
}
.give a {
  text-decoration: none;
}
.right {
  overflow: auto;
  display: grid;
  gap: 14px;
  justify-parts: center;
  align-content: start;
}
figure {
  width: min(100%, 640px);
}
img {
  width: 100%;
  display: block;
  border: var(--line);
}
</style>
