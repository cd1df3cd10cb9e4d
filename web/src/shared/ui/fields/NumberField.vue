<script setup lang="ts">
import { computed } from 'vue'
import { fact } from '@/shared/format'
import { noNumber, typedNumber } from '@/shared/typed'
import ReadField from './ReadField.vue'

/** A field for a number as people type it: "389k", "$389,000", ".2 ac". */
const props = defineProps<{ value: string | number | null | undefined; unit?: string }>()
const emit = defineEmits<{ number: [value: number | null] }>()
/** A figure in what it is shown in; what is worded already stays as it is. */
const shown = computed(() =>
  typeof props.value === 'number' ? fact(props.value, 'number', props.unit) : props.value,
)
const read = (text: string) => typedNumber(text, props.unit)
</script>

<template>
  <ReadField
    :value="shown"
    :read="read"
    :told="noNumber"
    inputmode="decimal"
    @read="emit('number', $event)"
  />
</template>
