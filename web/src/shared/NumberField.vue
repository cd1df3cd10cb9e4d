<script setup lang="ts">
import { ref, watch } from 'vue'
import { noNumber, typedNumber } from './format'
import TypedInput from './TypedInput.vue'

/** A field for a number as people type it. What cannot be read stays in the field with a sentence beside it, and is not sent. */
const props = defineProps<{ value: string | number | null | undefined; unit?: string }>()
const emit = defineEmits<{ number: [value: number | null] }>()
defineOptions({ inheritAttrs: false })
const fault = ref('')
watch(
  () => props.value,
  () => (fault.value = ''),
)
function typed(text: string) {
  const value = typedNumber(text, props.unit)
  fault.value = Number.isNaN(value) ? noNumber(text) : ''
  if (!fault.value) emit('number', value)
}
</script>

<template>
  <TypedInput
    v-bind="$attrs"
    :value="value"
    inputmode="decimal"
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
