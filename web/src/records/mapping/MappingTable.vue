<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { computed, ref, watch } from 'vue'
import type { Docs } from '@/shared/api/client'
import ColumnForm from './ColumnForm.vue'
import type { Part, useMapping } from './useMapping'

const props = defineProps<{ preview: Docs['PreviewDoc']; mapping: ReturnType<typeof useMapping> }>()
const m = props.mapping
const opened = ref('')
const mapped = computed(() => props.preview.columns.filter((c) => m.single(c.name)))
const heldFirst = (columns: Docs['PreviewDoc']['columns']) =>
  [...columns].sort((a, b) => Number(!a.samples.length) - Number(!b.samples.length))
/** Columns of which nothing is taken; those with something in them first. */
const left = computed(() => heldFirst(props.preview.columns.filter((c) => !m.used.value.has(c.name))))
const showLeft = ref(false)
/** What nothing else is taken from is kept: criteria, columns and facts of the office's own. */
function keepAll() {
  for (const c of left.value) if (c.own && c.samples.length) m.choose(c.name, c.own)
}
/** What was taken when those left out were opened: a column stays where it is while it is worked on. */
const stood = ref(new Set<string>())
watch(showLeft, () => (stood.value = new Set(mapped.value.map((c) => c.name))))
const rows = computed(() => {
  if (!showLeft.value) return mapped.value
  const all = props.preview.columns.filter((c) => m.single(c.name) || !m.used.value.has(c.name))
  return [
    ...all.filter((c) => stood.value.has(c.name)),
    ...heldFirst(all.filter((c) => !stood.value.has(c.name))),
  ]
})
const sorted = computed(() =>
  props.preview.fields
    .filter((f) => !f.name.startsWith('own_'))
    .sort((a, b) => a.label.localeCompare(b.label)),
)
const adding = ref<{ field: string; columns: string[]; how: Part['how']; constant: string }>(blank())
function blank() {
  return { field: '', columns: [] as string[], how: 'join' as Part['how'], constant: '' }
}
const HOWS: [Part['how'], string][] = [
  ['join', 'their words, one after another'],
  ['date', 'a date of year, month, day'],
  ['sum', 'their sum'],
  ['difference', 'the first less the others'],
  ['first', 'the first of them that holds something'],
]
function add() {
  const { field, columns, how, constant } = adding.value
  if (!field || (!columns.length && !constant)) return
  m.add({ field, columns, how, constant: columns.length ? null : constant })
  adding.value = blank()
}
/** How the numbers or dates of a column would be read, where they can be written in more than one form. */
const formOf = (column: string) =>
  props.preview.forms.find((r) => r.field === m.single(column)?.field && r.columns.includes(column))
const label = (name: string) => m.fields.value.get(name)?.label ?? name
/** Why a column is what it is, said where there is room for doubt. */
const whyOf = (column: string) => {
  const told = sure(column)
  return told && told.sure < 0.9 ? told.why : `${Math.round(100 * (told?.sure ?? 0))} %`
}
const sure = (column: string) => m.guess(column)
</script>

<template>
  <div>
    <section v-if="m.asked.value.length" class="sheet asks" aria-label="Columns to be told">
      <p>
        <b>Are these what they seem?</b>
        <span class="quiet small"> Until you say so they are left out. </span>
      </p>
      <div v-for="a in m.asked.value" :key="a.column.name" class="asked">
        <span class="name">{{ a.column.name }}</span>
        <span class="quiet small samples">{{ a.column.samples.join(' · ') || 'empty' }}</span>
        <span>for “{{ label(a.guess.part.field) }}”?</span>
        <span class="answers">
          <ActButton
            :aria-label="`Yes, ${a.column.name} is the ${label(a.guess.part.field)}`"
            @click="m.choose(a.column.name, a.guess.part.field)"
          >
            Yes
          </ActButton>
          <ActButton plain :aria-label="`No, leave ${a.column.name} out`" @click="m.refuse(a.column.name)">
            No
          </ActButton>
        </span>
      </div>
    </section>
    <div class="sheet">
      <PlainTable aria-label="Mapping of columns to fields">
        <thead>
          <tr>
            <th>In the file</th>
            <th>What stands in it</th>
            <th>Field</th>
            <th>How sure</th>
            <th>Form, unit, words</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="c in rows" :key="c.name">
            <tr :class="{ out: !m.single(c.name) }">
              <td class="name">{{ c.name }}</td>
              <td class="quiet small samples">{{ c.samples.join(' · ') || 'empty' }}</td>
              <td>
                <ChoiceField
                  :model-value="m.single(c.name)?.field ?? ''"
                  :aria-label="`Field of ${c.name}`"
                  @chosen="m.choose(c.name, $event)"
                >
                  <option value="">left out</option>
                  <option v-if="c.own" :value="c.own">a field of your own</option>
                  <option
                    v-for="f in sorted"
                    :key="f.name"
                    :value="f.name"
                    :disabled="m.taken.value.has(f.name) && m.single(c.name)?.field !== f.name"
                  >
                    {{ f.label }}
                  </option>
                </ChoiceField>
                <span v-if="c.why_not && !m.single(c.name)" class="beside quiet small">{{ c.why_not }}</span>
                <span v-for="p in m.beside(c.name)" :key="p.field" class="beside small">
                  and {{ label(p.field).toLowerCase() }}
                  <LinkButton :aria-label="`leave out ${label(p.field)}`" @click="m.remove(p.field)">
                    leave out
                  </LinkButton>
                </span>
              </td>
              <td>
                <span
                  v-if="m.single(c.name) && sure(c.name)?.part.field === m.single(c.name)?.field"
                  :title="sure(c.name)?.why"
                >
                  <i class="bar"
                    ><i
                      :style="{ width: `${100 * (sure(c.name)?.sure ?? 0)}%` }"
                      :class="{ weak: (sure(c.name)?.sure ?? 1) < 0.9 }"
                  /></i>
                  <span class="quiet small why">{{ whyOf(c.name) }}</span>
                </span>
                <span v-else-if="m.single(c.name)" class="cedar small">your choice</span>
                <LinkButton
                  v-else-if="sure(c.name) && !m.taken.value.has(sure(c.name)!.part.field)"
                  class="small"
                  @click="m.choose(c.name, sure(c.name)!.part.field)"
                >
                  perhaps {{ label(sure(c.name)!.part.field) }}?
                </LinkButton>
              </td>
              <td>
                <template v-if="m.single(c.name)">
                  <ColumnForm
                    v-if="formOf(c.name)"
                    :read="formOf(c.name)!"
                    :column="c.name"
                    :form="m.single(c.name)!.form"
                    @form="m.change(m.single(c.name)!.field, { form: $event })"
                  />
                  <ChoiceField
                    v-if="m.units(m.single(c.name)!.field).length"
                    :model-value="m.single(c.name)!.times"
                    :aria-label="`Unit of ${c.name}`"
                    @chosen="
                      m.change(m.single(c.name)!.field, {
                        times: Number($event),
                      })
                    "
                  >
                    <option
                      v-for="[word, times] in m.units(m.single(c.name)!.field)"
                      :key="word"
                      :value="times"
                    >
                      {{ word }}
                    </option>
                  </ChoiceField>
                  <LinkButton
                    v-else-if="m.fields.value.get(m.single(c.name)!.field)?.kind === 'word' && c.words.length"
                    class="small"
                    :aria-expanded="opened === c.name"
                    @click="opened = opened === c.name ? '' : c.name"
                  >
                    {{ c.words.length }} {{ c.words.length === 1 ? 'word' : 'words'
                    }}{{ Object.keys(m.single(c.name)!.values).length ? ', some changed' : '' }}
                  </LinkButton>
                </template>
              </td>
            </tr>
            <tr v-if="opened === c.name && m.single(c.name)">
              <td />
              <td colspan="4">
                <div class="words">
                  <label v-for="w in c.words" :key="w">
                    <span class="quiet">{{ w }}</span> →
                    <TypedInput
                      :value="m.single(c.name)!.values[w] ?? w"
                      :aria-label="`${w} means`"
                      :class="{ cedar: w in m.single(c.name)!.values }"
                      @typed="m.word(m.single(c.name)!.field, w, $event)"
                    />
                  </label>
                </div>
              </td>
            </tr>
          </template>
          <tr v-for="p in m.joined.value" :key="p.field">
            <td class="name">{{ p.columns.join(' + ') || 'the same in every row' }}</td>
            <td class="quiet small">
              {{ p.constant ?? HOWS.find(([how]) => how === p.how)?.[1] }}
            </td>
            <td>{{ label(p.field) }}</td>
            <td />
            <td><LinkButton class="small" @click="m.remove(p.field)">leave out</LinkButton></td>
          </tr>
        </tbody>
      </PlainTable>
    </div>
    <p v-if="left.length" class="small left">
      <LinkButton :aria-expanded="showLeft" @click="showLeft = !showLeft">
        {{ left.length }} {{ left.length === 1 ? 'column is' : 'columns are' }} left out
      </LinkButton>
      <LinkButton
        v-if="left.some((c) => c.own && c.samples.length)"
        title="Criteria, columns and facts of your own"
        @click="keepAll"
      >
        keep all as fields of your own
      </LinkButton>
      <span v-if="!showLeft" class="quiet">: {{ left.map((c) => c.name).join(', ') }}</span>
    </p>
    <form class="add" @submit.prevent="add">
      <b>A field from several columns, or the same in every row:</b>
      <ChoiceField v-model="adding.field" aria-label="Field to add">
        <option value="">field</option>
        <option v-for="f in sorted" :key="f.name" :value="f.name" :disabled="m.taken.value.has(f.name)">
          {{ f.label }}
        </option>
      </ChoiceField>
      <ChoiceField :model-value="''" aria-label="Column to add" @chosen="adding.columns.push($event)">
        <option value="">{{ adding.columns.length ? adding.columns.join(' + ') : 'columns' }}</option>
        <option v-for="c in preview.columns" :key="c.name" :value="c.name">{{ c.name }}</option>
      </ChoiceField>
      <ChoiceField v-if="adding.columns.length" v-model="adding.how" aria-label="How they are put together">
        <option v-for="[how, words] in HOWS" :key="how" :value="how">{{ words }}</option>
      </ChoiceField>
      <TextField
        v-else
        v-model="adding.constant"
        aria-label="The same in every row"
        placeholder="or a value"
      />
      <ActButton type="submit">Add</ActButton>
    </form>
  </div>
</template>

<style scoped>
select,
input {
  padding: 3px 6px;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  color: inherit;
  max-width: 230px;
}
.name {
  font-weight: 500;
}
.out td {
  background: rgba(var(--v-theme-mist), 0.6);
}
.out .name {
  font-weight: 400;
}
.samples {
  max-width: 330px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.asks {
  display: grid;
  gap: 8px;
  margin-bottom: 12px;
  padding: 12px 16px;
}
.asked {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr) 230px 130px;
  align-items: center;
  gap: 14px;
  padding-left: 8px;
  border-left: 4px solid rgb(var(--v-theme-lamp));
}
.answers {
  display: flex;
  gap: 6px;
}
.beside {
  display: flex;
  gap: 8px;
  margin-top: 3px;
}
.left {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-top: 10px;
  line-height: 1.7;
}
.why {
  display: inline-block;
  vertical-align: middle;
  max-width: 190px;
}
.bar {
  display: inline-block;
  width: 46px;
  height: 6px;
  margin-right: 8px;
  border-radius: var(--corner);
  background: rgba(var(--v-theme-line), 0.7);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: var(--corner);
  background: rgb(var(--v-theme-moss));
}
.bar i.weak {
  background: rgb(var(--v-theme-lamp));
}
.words {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px 18px;
  padding: 4px 0 8px;
}
.words input {
  width: 170px;
}
.add {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-top: 12px;
}
</style>
