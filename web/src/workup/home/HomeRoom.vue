<script setup lang="ts">
import { mdiUndoVariant } from '@mdi/js'
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import { day, fact, money, typedNumber } from '@/shared/format'
import TypedInput from '@/shared/TypedInput.vue'
import { useWorkup } from '../useWorkup'

const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const { open, send, refused } = useWorkup()
const facts = computed(() => {
  const known = (row: Docs['FactDoc']) =>
    [row.tax_roll, row.last_listing, row.agent, row.used].some((v) => v !== null)
  const all = open.data.value?.facts ?? []
  return everything.value ? all : all.filter((row) => known(row) || row.corrected)
})
const hidden = computed(() => (open.data.value?.facts ?? []).length - facts.value.length)
const everything = ref(false)
const past = computed(() => open.data.value?.past ?? [])
const faulty = ref<string | null>(null)

function differs(row: Docs['FactDoc']) {
  return row.tax_roll !== null && row.last_listing !== null && row.tax_roll !== row.last_listing
}
async function correct(row: Docs['FactDoc'], typed: string) {
  const text = typed.trim()
  let value: string | number | null = text
  if (text === '') {
    if (row.corrected) await back(row)
    return
  }
  if (row.kind === 'yes_no') value = /^(y|yes|1)$/i.test(text) ? 1 : /^(n|no|0)$/i.test(text) ? 0 : text
  else if (!['word', 'text'].includes(row.kind)) {
    const number = typedNumber(text)
    value = Number.isNaN(number) ? text : number
  }
  faulty.value = (await send({ change: 'correct_fact', field: row.field, value, back: false }))
    ? null
    : row.field
}
async function back(row: Docs['FactDoc']) {
  faulty.value = null
  await send({ change: 'correct_fact', field: row.field, value: null, back: true })
}
</script>

<template>
  <div class="home">
    <section class="facts">
      <h2>The facts</h2>
      <p class="quiet small mb-2">
        What is in use is bold. Type in the last column to correct a fact; the record stays beside it.
      </p>
      <table class="plain">
        <thead>
          <tr>
            <th>Fact</th>
            <th class="num">Tax roll</th>
            <th class="num">Last listing</th>
            <th class="num">In use</th>
            <th>Your word</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in facts" :key="row.field" :class="{ differs: differs(row) && !row.corrected }">
            <td>
              {{ row.label
              }}<span v-if="row.unit && row.unit !== '$'" class="quiet small">, {{ row.unit }}</span>
            </td>
            <td class="num">{{ fact(row.tax_roll, row.kind) }}</td>
            <td class="num">
              {{ fact(row.last_listing, row.kind) }}
              <span v-if="differs(row)" class="flag" title="The tax roll and the last listing disagree"
                >≠</span
              >
            </td>
            <td class="num" :class="{ cedar: row.corrected }">
              <b>{{ fact(row.used, row.kind) }}</b>
            </td>
            <td class="mine">
              <TypedInput
                :value="row.corrected ? (row.agent ?? '') : ''"
                :placeholder="row.corrected ? 'unknown' : ''"
                :aria-label="`Correct ${row.label}`"
                :aria-invalid="faulty === row.field"
                @typed="correct(row, $event)"
              />
              <v-btn
                v-if="row.corrected"
                :icon="mdiUndoVariant"
                size="x-small"
                :aria-label="`${row.label}: back to the records`"
                @click="back(row)"
              />
              <p v-if="faulty === row.field && refused" class="clay small" role="alert">
                {{ refused.message }}
              </p>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="hidden || everything" class="mt-3">
        <button type="button" class="link" @click="everything = !everything">
          {{ everything ? 'Hide what nobody knows' : `${hidden} more facts that no record knows` }}
        </button>
      </p>
    </section>
    <section class="side">
      <h2 class="mb-2">Where it stands</h2>
      <div class="map sheet">
        <HomeMap v-if="open.data.value" :subject="open.data.value.subject" :candidates="[]" :zoom="16.2" />
      </div>
      <h2 class="mt-5 mb-2">Its story</h2>
      <table v-if="past.length" class="plain">
        <tbody>
          <tr v-for="(event, i) in past" :key="i">
            <td class="when">{{ day(event.date) }}</td>
            <td>
              <b class="what">{{ event.what }}</b> <span class="quiet small">{{ event.note }}</span>
            </td>
            <td class="num">{{ event.price === null ? '' : money(event.price) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else class="quiet">The records hold no listing and no deed of this home.</p>
    </section>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 26px;
  padding: 18px 24px 28px;
}
.differs td {
  background: rgba(var(--v-theme-lamp), 0.12);
}
.flag {
  font-weight: 600;
}
.facts {
  overflow-x: auto;
}
.facts td,
.facts th {
  padding-left: 6px;
  padding-right: 6px;
}
.facts td:first-child {
  white-space: nowrap;
}
.mine {
  width: 100px;
}
.mine input {
  width: 82px;
  height: 26px;
  padding: 0 7px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: rgb(var(--v-theme-cedar));
}
.mine input[aria-invalid='true'] {
  border-color: rgb(var(--v-theme-clay));
}
.map {
  height: 270px;
  overflow: hidden;
}
.what::first-letter {
  text-transform: uppercase;
}
.when {
  white-space: nowrap;
}
</style>
