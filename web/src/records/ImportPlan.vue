<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { computed, ref, watchEffect } from 'vue'
import type { Docs } from '@/shared/api/client'
import { number } from '@/shared/format'
import { useFieldWords } from '@/shared/useFieldWords'
import RowInWords from './RowInWords.vue'
import WhereTheyLie from './WhereTheyLie.vue'

type Sample = Record<string, unknown> & {
  key?: string
  before?: Record<string, unknown>
  after?: Record<string, unknown>
  row_number?: number
  reasons?: string[]
  original?: Record<string, string>
}
const props = defineProps<{
  result: Record<string, unknown>
  samples: Record<string, Sample[]>
  done: boolean
}>()
const OUTCOMES = [
  ['new', 'new'],
  ['changed', 'changed'],
  ['same', 'the same'],
  ['suspect', 'suspect'],
  ['rejected', 'rejected'],
] as const
const n = (name: string) => Number(props.result[name] ?? 0)
const shares = computed(() => {
  const all = Math.max(1, n('new') + n('changed') + n('same') + n('rejected'))
  return OUTCOMES.filter(([name]) => name !== 'suspect' && n(name)).map(([name]) => ({
    name,
    width: `${(100 * n(name)) / all}%`,
  }))
})
const shown = ref('')
watchEffect(() => {
  if (!shown.value) shown.value = ['rejected', 'suspect', 'changed', 'new', 'same'].find((o) => n(o)) ?? ''
})
const rows = computed(() => props.samples[shown.value] ?? [])
const { label, reason, facts, asItStood } = useFieldWords()
const changes = computed(() => Object.entries((props.result.changes ?? {}) as Record<string, number>))
const reasons = computed(() => Object.entries((props.result.reasons ?? {}) as Record<string, number>))
const places = computed(
  () => (props.samples.places ?? []) as unknown as { latitude: number; longitude: number; odd: boolean }[],
)
const emit = defineEmits<{ places: [how: 'swap' | 'new'] }>()
/** What can be done about places that are not believed: until then they are suspect and left out. */
const offers = computed(() =>
  [
    {
      places: 'swap' as const,
      rows: n('swapped'),
      says: 'where they should when latitude and longitude change places.',
      does: 'Swap them back',
    },
    {
      places: 'new' as const,
      rows: n('far'),
      says: 'far from everything held, and will be suspect.',
      does: 'They are right: a new area',
    },
  ].filter((o) => o.rows && !props.done),
)
const forms = computed(() => (props.result.forms ?? []) as Docs['FormReadDoc'][])
const FEW = 4
const showForms = ref(forms.value.length <= FEW)
</script>

<template>
  <section class="sheet plan" :aria-label="done ? 'What was taken in' : 'What would change'">
    <p class="says">
      {{ done ? 'Taken in.' : 'Nothing has changed yet. Of' }}
      <b>{{ number(n('rows')) }}</b> rows{{ done ? ':' : ', these would be:' }}
    </p>
    <p v-if="forms.length > FEW" class="small">
      <LinkButton :aria-expanded="showForms" @click="showForms = !showForms">
        How the numbers and dates of {{ forms.length }} {{ forms.length === 1 ? 'column' : 'columns' }} are
        read
      </LinkButton>
    </p>
    <ul v-if="forms.length && showForms" class="small forms" aria-label="How numbers and dates are read">
      <li v-for="r in forms" :key="r.field">
        <b>{{ r.columns.join(', ') }}</b>: {{ r.words }} ({{ r.why }});
        <template v-for="(cell, i) in r.samples" :key="cell.text"
          >{{ i ? ', ' : '' }}“{{ cell.text }}” is {{ cell.value }}</template
        >
      </li>
    </ul>
    <WhereTheyLie v-if="places.length && !done" :places="places" class="where" />
    <p v-for="o in offers" :key="o.places" class="offer small">
      {{ number(o.rows) }} {{ o.rows === 1 ? 'row lies' : 'rows lie' }} {{ o.says }}
      <ActButton @click="emit('places', o.places)">{{ o.does }}</ActButton>
    </p>
    <div class="shares" aria-hidden="true">
      <i v-for="s in shares" :key="s.name" :class="s.name" :style="{ width: s.width }" />
    </div>
    <div class="outcomes" role="tablist">
      <PressArea
        v-for="[name, words] in OUTCOMES"
        :key="name"
        role="tab"
        :aria-selected="shown === name"
        :class="{ at: shown === name, none: !n(name) }"
        :disabled="!n(name)"
        @click="shown = name"
      >
        <b>{{ number(n(name)) }}</b>
        <span><i class="dot" :class="name" />{{ words }}</span>
      </PressArea>
    </div>
    <p v-if="changes.length && shown === 'changed'" class="small mt-2">
      Fields that change:
      <template v-for="([name, count], i) in changes" :key="name"
        >{{ i ? ', ' : '' }}{{ label(name) }} {{ number(count) }}</template
      >
    </p>
    <p v-if="reasons.length" class="small mt-2">
      <template v-for="([name, count], i) in reasons" :key="name"
        >{{ i ? ' · ' : '' }}{{ number(count) }} × {{ reason(name) }}</template
      >
    </p>
    <div
      v-if="rows.length"
      class="rows"
      tabindex="0"
      role="region"
      :aria-label="`Rows that are ${shown}, to scroll`"
    >
      <PlainTable :aria-label="`Rows that are ${shown}`">
        <tbody>
          <tr v-for="(r, i) in rows" :key="i">
            <template v-if="shown === 'changed'">
              <td class="key">{{ r.key }}</td>
              <td>
                <span v-for="(old, name) in r.before" :key="name" class="change">
                  {{ label(String(name)) }} <s class="quiet">{{ old ?? 'unknown' }}</s>
                  {{ r.after?.[name] ?? 'unknown' }}
                </span>
              </td>
            </template>
            <template v-else-if="shown === 'rejected' || shown === 'suspect'">
              <td class="num key">row {{ number(r.row_number ?? 0) }}</td>
              <td class="why">{{ r.reasons?.map(reason).join('; ') }}</td>
              <td class="cut"><RowInWords :words="asItStood(r.original)" /></td>
            </template>
            <template v-else>
              <td class="key">{{ r.key }}</td>
              <td class="cut"><RowInWords :words="facts(r.after)" /></td>
            </template>
          </tr>
        </tbody>
      </PlainTable>
    </div>
  </section>
</template>

<style scoped>
.plan {
  padding: 14px 18px;
}
.where {
  float: right;
  margin-left: 20px;
}
.says b {
  font-size: var(--title-s);
}
.shares {
  display: flex;
  height: 8px;
  margin: 10px 0;
  border-radius: var(--corner);
  overflow: hidden;
  background: rgb(var(--v-theme-mist));
}
.new {
  background: rgb(var(--v-theme-moss));
}
.changed {
  background: rgb(var(--v-theme-rain));
}
.same {
  background: rgb(var(--v-theme-line));
}
.suspect {
  background: rgb(var(--v-theme-lamp));
}
.rejected {
  background: rgb(var(--v-theme-clay));
}
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 6px;
  border-radius: var(--corner-s);
}
.outcomes {
  display: flex;
  gap: 8px;
}
.outcomes button {
  display: grid;
  text-align: left;
  padding: 5px 14px 6px 10px;
  border-radius: var(--corner-l);
  border: 1px solid transparent;
}
.outcomes b {
  font-size: var(--title);
  font-weight: 600;
}
.outcomes button.at {
  background: rgb(var(--v-theme-mist));
  border-color: rgb(var(--v-theme-line));
}
.outcomes button.none {
  opacity: 0.45;
}
.rows {
  max-height: 240px;
  overflow: auto;
  margin-top: 10px;
}
.key {
  white-space: nowrap;
  font-weight: 500;
}
.why {
  min-width: 220px;
}
.cut {
  width: 100%;
  max-width: 0;
}
.change {
  margin-right: 16px;
}
.offer {
  display: flex;
  align-items: center;
  gap: 12px;
  margin: 6px 0;
  padding-left: 8px;
  border-left: 4px solid rgb(var(--v-theme-lamp));
}
.forms {
  margin: 6px 0 10px;
  padding-left: 18px;
}
</style>
