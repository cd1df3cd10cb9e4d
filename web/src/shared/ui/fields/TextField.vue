<script setup lang="ts">
import { ref } from 'vue'

/** A line of text, or several where `rows` is given. What is read into a value has fields of its own. */
defineProps<{ rows?: number }>()
const text = defineModel<string | number>()
const field = ref<HTMLInputElement | HTMLTextAreaElement>()
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <textarea v-if="rows" ref="field" v-model="text" :rows="rows" />
  <input v-else ref="field" v-model="text" />
</template>
