<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useSession } from '@/session/useSession'
import { api, got, type Told } from '@/shared/api/client'
import { day, lotWords, number, perSqftWords, priced, sizedWords } from '@/shared/format'
import { formNow, readIn, type LocalForm } from '@/shared/localForm'
import { inTurn } from '@/shared/useDraft'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'

/** In which form the office reads numbers, days, money and sizes: chosen, and seen at once in an example. */
const client = useQueryClient()
const { isManager } = useSession()
const form = computed(() => formNow())
const failed = ref('')
const next = inTurn()
let newest = 0
let kept = formNow() // by the service
async function choose(change: Partial<LocalForm>) {
  const mine = ++newest
  failed.value = ''
  await client.cancelQueries({ queryKey: ['session'] }) // asked before: it no longer tells the form
  const body = { ...form.value, ...change }
  readIn(body)
  await next(async () => {
    try {
      await got(api.PUT('/api/local-form', { body }))
      kept = body
    } catch (error) {
      failed.value = (error as Told).message
      if (mine === newest) readIn(kept) // what was chosen since is on its way
    }
  })
  if (mine === newest) await client.invalidateQueries()
}
const CHOICES = [
  { part: 'numbers', label: 'Numbers', words: ['1,234.5', '1.234,5', '1 234,5', '1’234.5'] },
  { part: 'days', label: 'Days', words: ['Aug 31, 2026', '31 Aug 2026', '2026-08-31'] },
  { part: 'sign_stands', label: 'The sign of money stands', words: ['before', 'after'] },
  { part: 'sizes', label: 'Sizes and distances in', words: ['feet', 'metres'] },
] as const
const example = computed(() =>
  [
    priced(412500),
    sizedWords(1520, 'sq ft'),
    perSqftWords(271.38),
    lotWords(9150),
    sizedWords(0.5, 'mi', 2),
    `${number(3.5, 1)} %`,
    day('2026-08-31'),
  ].join(' · '),
)
</script>

<template>
  <section aria-labelledby="local-form">
    <h2 id="local-form" class="mt-8 mb-1">Numbers, days, money, sizes</h2>
    <p>
      How they are read and typed, on every screen and on paper, by everybody of the office. Records, files
      and formulas keep what they were reckoned in; an amount is never changed into another money.
    </p>
    <p class="example mt-2" aria-live="polite">{{ example }}</p>
    <div v-if="isManager" class="fields mt-2">
      <label v-for="c in CHOICES" :key="c.part">
        {{ c.label }}
        <ChoiceField :model-value="form[c.part]" :aria-label="c.label" @chosen="choose({ [c.part]: $event })">
          <option v-for="word in c.words" :key="word">{{ word }}</option>
        </ChoiceField>
      </label>
      <label>
        Sign of money
        <TypedInput
          class="sign"
          :value="form.sign"
          aria-label="Sign of money"
          maxlength="4"
          @typed="choose({ sign: $event })"
        />
      </label>
    </div>
    <p v-else class="quiet small">A manager chooses it.</p>
    <p v-if="failed" class="clay small mt-2" role="alert">{{ failed }}</p>
  </section>
</template>

<style scoped>
.example {
  font-weight: 600;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
}
.fields label {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
.sign {
  width: 4.5em;
}
</style>
