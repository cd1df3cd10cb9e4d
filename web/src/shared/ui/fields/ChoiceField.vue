<script setup lang="ts" generic="T extends string | number | null | undefined">
import { nextTick, onUpdated, ref } from 'vue'

/**
 * One of a list, opened as the machine opens lists: by keys, by touch, with the first letters of a word. The options
 * stand inside it. `chosen` tells the option's own text, whatever kind of value is held.
 */
const held = defineProps<{ modelValue?: T }>()
const emit = defineEmits<{ 'update:modelValue': [value: T]; chosen: [value: string] }>()
const field = ref<HTMLSelectElement>()
const shown = () => String(held.modelValue ?? '')
function choose(event: Event) {
  const text = (event.target as HTMLSelectElement).value
  emit('update:modelValue', (typeof held.modelValue === 'number' ? Number(text) : text) as T)
  emit('chosen', text)
  // a list that adds what is chosen to something holds nothing itself
  if (held.modelValue === '') void nextTick(show)
}
/** What is held is what is shown, also when options came later or went. */
function show() {
  if (field.value && field.value.value !== shown()) field.value.value = shown()
}
onUpdated(show)
</script>

<template>
  <select ref="field" :value="shown()" @change="choose">
    <slot />
  </select>
</template>
