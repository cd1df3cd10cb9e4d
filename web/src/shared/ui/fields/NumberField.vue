<script setup lang="ts">
import { noNumber, typedNumber } from '@/shared/typed'
import ReadField from './ReadField.vue'

/** A field for a number as people type it: "389k", "$389,000", ".2 ac". */
const props = defineProps<{ value: string | number | null | undefined; unit?: string }>()
const emit = defineEmits<{ number: [value: number | null] }>()
const read = (text: string) => typedNumber(text, props.unit)
</script>

<template>
  <ReadField
    :value="value"
    :read="read"
    :told="noNumber"
    inputmode="decimal"
    @read="emit('number', $event)"
  />
</template>
