<script setup lang="ts" generic="T extends string | number">
import { ref, watch } from 'vue'
import TypedInput from './TypedInput.vue'

/**
 * A field whose text is read into a value: `read` gives null for nothing and NaN for what it cannot read. That stays in the
 * field with the sentence of `told` beside it, and is not sent.
 */
const props = defineProps<{
  value: string | number | null | undefined
  read: (text: string) => T | null
  told: (text: string) => string
}>()
const emit = defineEmits<{ read: [value: T | null] }>()
defineOptions({ inheritAttrs: false })
const fault = ref('')
watch(
  () => props.value,
  () => (fault.value = ''),
)
function typed(text: string) {
  const value = props.read(text)
  fault.value = Number.isNaN(value) ? props.told(text) : ''
  if (!fault.value) emit('read', value)
}
</script>

<template>
  <TypedInput
    v-bind="$attrs"
    :value="value"
    :aria-invalid="!!fault || $attrs['aria-invalid'] === true"
    @typed="typed"
  />
  <span v-if="fault" class="clay small fault" role="alert">{{ fault }}</span>
</template>

<style scoped>
.fault {
  display: block;
  max-width: 220px;
  white-space: normal;
  text-align: left;
}
</style>
