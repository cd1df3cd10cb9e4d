<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { computed, ref } from 'vue'
import { useFields } from '@/shared/useFields'
import { useDraft } from '@/shared/useDraft'
import { useWorkup } from '../useWorkup'
import { localHead } from '@/shared/localForm'

const { state, send } = useWorkup()
type Feature = { label: string; amount?: number | null }
const { value: features, change } = useDraft(
  () => (state.value?.features ?? []) as Feature[],
  (next) => send({ change: 'set_features', features: next }),
)
const label = ref('')
async function add(name = label.value) {
  const words = name.trim()
  if (words && (await change((held) => [...held, { label: words, amount: null }]))) label.value = ''
}
const price = (i: number, amount: number | null) =>
  change((held) => held.map((f, k) => (k === i ? { ...f, amount } : f)))
const drop = (i: number) => change((held) => held.filter((_, k) => k !== i))
/** Columns that files brought and that no field holds: with a rate each is a line of the grid. */
const fields = useFields()
const brought = computed(() =>
  (fields.data.value ?? []).filter((f) => f.group === 'own' && ['number', 'yes_no'].includes(f.kind)),
)
const rate = (name: string) => (state.value?.rates ?? {})[name] ?? ''
const setRate = (name: string, value: number | null) => send({ change: 'set_rate', field: name, value })
defineExpose({ add })
</script>

<template>
  <section aria-labelledby="own-features">
    <h2 id="own-features" class="mt-5 mb-1">What no field holds</h2>
    <p class="quiet small mb-2">
      A sauna, a view, a busy road behind: each becomes a line of the grid. Without an amount it is left to
      your judgement there.
    </p>
    <p v-for="(f, i) in features" :key="f.label" class="row">
      <b>{{ f.label }}</b>
      <NumberField
        :value="f.amount ?? ''"
        :aria-label="`Amount for ${f.label}`"
        placeholder="judgement"
        @number="price(i, $event)"
      />
      <LinkButton class="small" :aria-label="`Take ${f.label} away`" @click="drop(i)"> take away </LinkButton>
    </p>
    <form class="row" @submit.prevent="add()">
      <TextField v-model="label" aria-label="Name of a feature" placeholder="sauna" maxlength="60" />
      <ActButton type="submit">Add</ActButton>
    </form>
    <template v-if="brought.length">
      <p class="quiet small mt-3 mb-1">Fields of your own: with a rate, each is a line of the grid.</p>
      <p v-for="f in brought" :key="f.name" class="row">
        <span>{{ f.label }}</span>
        <NumberField
          :value="rate(f.name)"
          :aria-label="`Rate for ${f.label}`"
          :placeholder="localHead(f.kind === 'yes_no' ? '$ where it is so' : '$ for one')"
          @number="setRate(f.name, $event)"
        />
        <LinkButton
          v-if="rate(f.name) !== ''"
          class="small"
          :aria-label="`No line for ${f.label}`"
          @click="setRate(f.name, null)"
        >
          no line
        </LinkButton>
      </p>
    </template>
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px 72px;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
}
form.row {
  grid-template-columns: minmax(0, 1fr) auto;
}
.row :deep(input),
input {
  min-width: 0;
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
