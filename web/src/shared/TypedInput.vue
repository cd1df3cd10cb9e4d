<script setup lang="ts">
import { ref, watch } from 'vue'

/**
 * A field whose text is the reader's own while they type: a value that comes from elsewhere meanwhile shows only after
 * they have left the field. What was refused stays as typed; Escape returns to the value.
 */
const props = defineProps<{ value: string | number | null | undefined }>()
const emit = defineEmits<{ typed: [text: string] }>()
const field = ref<HTMLInputElement>()
const draft = ref<string | null>(null)

watch(
  () => props.value,
  () => {
    if (document.activeElement !== field.value) draft.value = null
  },
)
</script>

<template>
  <input
    ref="field"
    :value="draft ?? value ?? ''"
    @input="draft = ($event.target as HTMLInputElement).value"
    @change="emit('typed', ($event.target as HTMLInputElement).value)"
    @keydown.enter="field?.blur()"
    @keydown.esc="draft = null"
  />
</template>
