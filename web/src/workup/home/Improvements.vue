<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { computed, reactive, ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import { priced } from '@/shared/format'
import { noNumber, typedNumber } from '@/shared/typed'
import { useDraft } from '@/shared/useDraft'
import { useWorkup } from '../useWorkup'

const props = defineProps<{ around?: Docs['AroundDoc'] }>()
const { state, send } = useWorkup()
const { value: done, change } = useDraft(
  () => (state.value?.improvements ?? []) as Docs['ImprovementDoc'][],
  (next) => send({ change: 'set_improvements', improvements: next }),
)
const total = computed(() => (props.around?.returned ?? []).reduce((sum, r) => sum + r.value, 0))
const adding = reactive({ kind: 'kitchen', year: '', cost: '', quality: 'good' })
const missing = ref('')
const drop = (i: number) => change((held) => held.filter((_, k) => k !== i))
async function add() {
  const year = typedNumber(adding.year)
  const cost = typedNumber(adding.cost)
  const odd = Number.isNaN(year) ? adding.year : Number.isNaN(cost) ? adding.cost : ''
  missing.value = odd
    ? noNumber(odd)
    : year === null
      ? 'Give the year.'
      : cost === null
        ? 'Give the cost.'
        : ''
  if (missing.value || year === null || cost === null) return
  const { kind, quality } = adding
  if (await change((held) => [...held, { kind, quality, year, cost, note: '' }]))
    adding.year = adding.cost = ''
}
</script>

<template>
  <section aria-labelledby="improvements">
    <h2 id="improvements" class="mt-5 mb-1">Recent improvements</h2>
    <p class="quiet small mb-2">A part of the cost comes back in the price, and less with the years.</p>
    <div v-for="(x, i) in done" :key="i" class="done">
      <p class="line">
        <span
          ><b>{{ x.kind }}</b> <span class="quiet">{{ x.year }}, {{ x.quality }}</span></span
        >
        <b>{{ priced(around?.returned[i]?.value ?? null) }}</b>
      </p>
      <p class="quiet small line">
        <span>{{ around?.returned[i]?.formula }}</span>
        <LinkButton :aria-label="`Take the ${x.kind} away`" @click="drop(i)"> take away </LinkButton>
      </p>
    </div>
    <p v-if="done.length > 1" class="line total">
      <span>Together</span><b>{{ priced(total) }}</b>
    </p>
    <form class="add" @submit.prevent="add">
      <ChoiceField v-model="adding.kind" aria-label="Kind of improvement">
        <option v-for="kind in around?.kinds ?? []" :key="kind" :value="kind">{{ kind }}</option>
      </ChoiceField>
      <TextField v-model="adding.year" aria-label="Year it was done" placeholder="year" inputmode="numeric" />
      <TextField v-model="adding.cost" aria-label="What it cost" placeholder="cost" inputmode="numeric" />
      <ChoiceField v-model="adding.quality" aria-label="Quality of the work">
        <option v-for="quality in around?.qualities ?? []" :key="quality" :value="quality">
          {{ quality }}
        </option>
      </ChoiceField>
      <ActButton type="submit">Add</ActButton>
      <span v-if="missing" class="clay small" role="alert">{{ missing }}</span>
    </form>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.line .link {
  flex: none;
}
.done {
  padding: 3px 0;
  border-bottom: var(--line);
}
.total {
  padding: 4px 0;
}
.add {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) max-content max-content;
  gap: 6px;
  margin-top: 8px;
}
.add select:first-child {
  grid-column: 1 / -1;
}
input,
select {
  min-width: 0;
  padding: 4px 6px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
  background: rgb(var(--v-theme-surface));
}
</style>
