<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { useConditions } from '../useConditions'
import type { View } from '../useView'
import { blank, KINDS, viewWords } from './parts'
import type { Part } from './useBulletins'

/** The parts of a bulletin: ordered, named, commented, each of its own view. */
const props = defineProps<{ parts: Part[]; view: View }>()
const emit = defineEmits<{ put: [parts: Part[]] }>()
const saved = useQuery({ queryKey: ['views'], queryFn: () => got(api.GET('/api/views')) })
const change = (i: number, to: Partial<Part>) =>
  emit(
    'put',
    props.parts.map((x, k) => (k === i ? { ...x, ...to } : x)),
  )
function move(i: number, by: number) {
  const next = [...props.parts]
  const [one] = next.splice(i, 1)
  next.splice(Math.max(0, Math.min(next.length, i + by)), 0, one!)
  emit('put', next)
}
const { groups } = useConditions()
const looksAt = (view: View) =>
  viewWords(
    view,
    groups(view.where ?? []).map((g) => g.words),
  )
const same = (a: View, b: View) => JSON.stringify(a) === JSON.stringify(b)
const picked = ref('')
function addSaved() {
  const held = saved.data.value?.find((v) => String(v.view_id) === picked.value)
  if (held) emit('put', [...props.parts, blank('view', held.view as View, held.name)])
  picked.value = ''
}
</script>

<template>
  <ol class="framed" aria-label="Parts of the bulletin">
    <li v-for="(part, i) in parts" :key="i" :class="{ begins: part.page_break }">
      <p class="part">
        <TypedInput
          :value="part.title"
          :placeholder="KINDS[part.kind!]"
          :aria-label="`Heading of part ${i + 1}`"
          maxlength="120"
          @typed="change(i, { title: $event })"
        />
        <PressArea :aria-label="`Part ${i + 1} up`" :disabled="i === 0" @click="move(i, -1)"> ↑ </PressArea>
        <PressArea :aria-label="`Part ${i + 1} down`" :disabled="i === parts.length - 1" @click="move(i, 1)">
          ↓
        </PressArea>
        <PressArea
          :aria-label="`Take part ${i + 1} away`"
          @click="
            emit(
              'put',
              parts.filter((_, k) => k !== i),
            )
          "
        >
          ×
        </PressArea>
      </p>
      <TypedInput
        :value="part.comment"
        :rows="1"
        placeholder="a comment"
        :aria-label="`Comment to part ${i + 1}`"
        @typed="change(i, { comment: $event })"
      />
      <p class="small options">
        <span v-if="part.kind !== 'words'" class="quiet of" :title="looksAt(part.view)">{{
          looksAt(part.view)
        }}</span>
        <LinkButton
          v-if="part.kind !== 'words' && !same(part.view, view)"
          :aria-label="`Part ${i + 1} of the view above`"
          @click="change(i, { view })"
        >
          take the view above
        </LinkButton>
        <label v-if="i > 0">
          <CheckBox
            :model-value="part.page_break"
            :aria-label="`Part ${i + 1} begins a page`"
            @update:model-value="change(i, { page_break: $event })"
          />
          begins a page
        </label>
        <label v-if="part.kind === 'headline'">
          <CheckBox
            :model-value="part.figures === 6"
            @update:model-value="change(i, { figures: $event ? 6 : 4 })"
          />
          six figures
        </label>
        <label v-if="part.kind === 'sold' || part.kind === 'came_on'">
          <CheckBox :model-value="!part.table" @update:model-value="change(i, { table: !$event })" />
          with pictures
        </label>
        <label v-if="part.kind === 'view'">
          <CheckBox :model-value="part.table" @update:model-value="change(i, { table: $event })" />
          with its figures of the last
          <NumberField
            class="days"
            :value="part.periods"
            aria-label="Periods"
            @number="$event && change(i, { periods: Math.round($event) })"
          />
          {{ part.view.by }}s
        </label>
        <label v-if="part.kind === 'changed'">
          over the last
          <NumberField
            class="days"
            :value="part.days"
            unit="days"
            aria-label="Days"
            @number="$event && change(i, { days: Math.round($event) })"
          />
          days
        </label>
      </p>
    </li>
  </ol>
  <p class="adds small">
    Add
    <LinkButton
      v-for="(words, kind) in KINDS"
      :key="kind"
      @click="emit('put', [...parts, blank(kind, view)])"
    >
      {{ words }}
    </LinkButton>
    <ChoiceField v-model="picked" aria-label="Add a saved view" @chosen="addSaved">
      <option value="">a saved view …</option>
      <option v-for="v in saved.data.value ?? []" :key="v.view_id" :value="String(v.view_id)">
        {{ v.name }}
      </option>
    </ChoiceField>
  </p>
</template>

<style scoped>
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
li.begins {
  border-top: 2px solid rgb(var(--v-theme-cedar));
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
li :deep(input:not([type='checkbox'], .days)),
li :deep(textarea) {
  width: 100%;
}
li :deep(input.days) {
  width: 5em;
}
.options,
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.of {
  max-width: 230px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.adds {
  padding: 10px 0;
  border-top: var(--line);
}
.adds select {
  background: rgb(var(--v-theme-mist));
  color: inherit;
}
</style>
