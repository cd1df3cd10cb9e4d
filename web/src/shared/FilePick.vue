<script setup lang="ts">
/** A link that asks for one file. The same file can be chosen again after it was mended. */
defineProps<{ accept: string }>()
const emit = defineEmits<{ chosen: [file: File] }>()
function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) emit('chosen', file)
  input.value = ''
}
</script>

<template>
  <label class="link"><slot /> <input type="file" :accept="accept" @change="chosen" /></label>
</template>

<style scoped>
label {
  position: relative;
}
input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
label:focus-within {
  outline: 2px solid rgb(var(--v-theme-rain));
}
</style>
