<script setup lang="ts">
import { ref, watch } from 'vue'

/**
 * A field whose text is the reader's own while they type: a value that comes from elsewhere meanwhile shows only after
 * they have left the field. What was refused stays as typed; Escape returns to the value. `rows` makes it several lines.
 */
const props = defineProps<{ value: string | number | null | undefined; rows?: number }>()
const emit = defineEmits<{ typed: [text: string] }>()
const field = ref<HTMLInputElement | HTMLTextAreaElement>()
const draft = ref<string | null>(null)

watch(
  () => props.value,
  () => {
    if (document.activeElement !== field.value) draft.value = null
  },
)
function entered() {
  if (!props.rows) field.value?.blur()
}
</script>

<template>
  <component
    :is="rows ? 'textarea' : 'input'"
    ref="field"
    :rows="rows"
    :value="draft ?? value ?? ''"
    @input="draft = ($event.target as HTMLInputElement).value"
    @change="emit('typed', ($event.target as HTMLInputElement).value)"
    @keydown.enter="entered"
    @keydown.esc="draft = null"
  />
</template>
