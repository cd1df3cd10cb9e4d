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
    if (taken || document.activeElement !== field.value) draft.value = null
  },
)
/** Enter takes what is typed and leaves the field; in a menu or dialog it stays there, where keys go on. */
function entered() {
  if (props.rows) return
  // what was refused before stands there unchanged, and the browser tells of changes alone: Enter sends it again
  if (draft.value !== null && field.value?.value === atFocus) emit('typed', atFocus)
  if (!field.value?.closest('.v-overlay')) field.value?.blur()
  else taken = true // the browser itself tells of the change on Enter
}
let taken = false
let atFocus = '' // what stood in the field when it was entered
/** What was typed is gone at once: a field that closes on Escape would else tell of it as it goes. */
function escaped() {
  draft.value = null
  if (field.value) field.value.value = String(props.value ?? '')
}
</script>

<template>
  <component
    :is="rows ? 'textarea' : 'input'"
    ref="field"
    :rows="rows"
    :value="draft ?? value ?? ''"
    @input="((draft = ($event.target as HTMLInputElement).value), (taken = false))"
    @change="emit('typed', ($event.target as HTMLInputElement).value)"
    @focus="atFocus = ($event.target as HTMLInputElement).value"
    @keydown.enter="entered"
    @keydown.esc="escaped"
  />
</template>
