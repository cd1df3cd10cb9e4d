<script setup lang="ts">
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import type { Docs } from '@/shared/api/client'

/** How a column's numbers or dates are written: as the whole column shows, or as the agent says; with samples as read. */
type Form = NonNullable<Docs['PartDoc']['form']>
defineProps<{ read: Docs['FormReadDoc']; column: string; form: Form }>()
defineEmits<{ form: [form: Form] }>()
const WORDS: Record<string, string> = {
  point: 'decimals after a point',
  comma: 'decimals after a comma',
  mdy: 'month first',
  dmy: 'day first',
}
</script>

<template>
  <span class="form">
    <ChoiceField
      :model-value="form"
      :aria-label="`How ${column} is written`"
      @chosen="$emit('form', $event as Form)"
    >
      <option value="">
        {{ read.form ? WORDS[read.form] : 'choose' }}
      </option>
      <option v-for="c in read.choices" :key="c" :value="c">{{ WORDS[c] }}</option>
    </ChoiceField>
    <span v-if="!form" class="small" :class="read.form ? 'quiet' : 'ask'">
      “{{ read.samples[0]?.text }}” is {{ read.samples[0]?.value }}{{ read.form ? `, ${read.why}` : '?' }}
    </span>
  </span>
</template>

<style scoped>
.form {
  display: grid;
  gap: 2px;
}
select {
  padding: 3px 6px;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  color: inherit;
  max-width: 230px;
}
.ask {
  border-left: 4px solid rgb(var(--v-theme-lamp));
  padding-left: 6px;
}
</style>
