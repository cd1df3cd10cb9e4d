<script setup lang="ts">
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed, ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import { number } from '@/shared/format'

/** A source's own words for statuses and kinds of home: those that nobody can tell are asked, with their rows. */
const props = defineProps<{
  words: Docs['WordReadDoc'][]
  statuses: string[]
  homeKinds: string[]
  said: (field: string, word: string) => string | undefined
}>()
const emit = defineEmits<{ word: [field: string, word: string, means: string] }>()

const all = ref(false)
const asked = computed(() => props.words.filter((w) => !w.means))
const known = computed(() => props.words.filter((w) => w.means))
const shown = computed(() => (all.value ? props.words : asked.value))
const choices = (w: Docs['WordReadDoc']) => (w.field === 'standard_status' ? props.statuses : props.homeKinds)
const value = (w: Docs['WordReadDoc']) => props.said(w.field, w.word) ?? w.means ?? ''
</script>

<template>
  <section
    v-if="words.length"
    :class="{ sheet: asked.length || all }"
    class="framed words"
    aria-label="Words of the source"
  >
    <p v-if="asked.length">
      <b>What do these mean?</b>
      <span class="quiet small"> Asked once; remembered for this source. </span>
    </p>
    <div class="list">
      <label v-for="w in shown" :key="w.field + w.word" :class="{ ask: !value(w) }">
        <span>“{{ w.word }}”</span>
        <span class="quiet small num">{{ number(w.rows) }} {{ w.rows === 1 ? 'row' : 'rows' }}</span>
        <ChoiceField
          :model-value="value(w)"
          :aria-label="`${w.word} means`"
          @chosen="emit('word', w.field, w.word, $event)"
        >
          <option value="">
            {{ w.field === 'standard_status' ? 'say which status' : 'say which kind' }}
          </option>
          <option v-for="c in choices(w)" :key="c" :value="c">{{ c }}</option>
        </ChoiceField>
      </label>
    </div>
    <LinkButton v-if="known.length" class="small known" :aria-expanded="all" @click="all = !all">
      {{ all ? 'hide' : 'look at' }} the {{ number(known.length) }}
      {{ known.length === 1 ? 'word' : 'words' }} that {{ known.length === 1 ? 'is' : 'are' }} known
    </LinkButton>
  </section>
</template>

<style scoped>
.words {
  display: grid;
  gap: 8px;
}
.sheet {
  padding: 12px 16px;
}
.list {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 6px 26px;
}
.known {
  justify-self: start;
}
label {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 78px 170px;
  align-items: center;
  gap: 10px;
  padding-left: 8px;
  border-left: 4px solid transparent;
}
.ask {
  border-left-color: rgb(var(--v-theme-lamp));
}
</style>
