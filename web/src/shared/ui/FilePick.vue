<script setup lang="ts">
/** A link, or an area, that asks for files. The same file can be chosen again after it was mended. */
defineProps<{ accept: string; name?: string; several?: boolean; area?: boolean }>()
const emit = defineEmits<{ chosen: [file: File]; all: [files: File[]] }>()
function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  if (files[0]) {
    emit('chosen', files[0])
    emit('all', files)
  }
  input.value = ''
}
</script>

<template>
  <label :class="{ link: !area }">
    <slot /> <input type="file" :accept="accept" :aria-label="name" :multiple="several" @change="choose" />
  </label>
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
label {
  cursor: pointer;
}
label:focus-within {
  outline: 2px solid rgb(var(--v-theme-rain));
}
</style>
