<script setup lang="ts">
import { computed } from 'vue'
import { fact, inField } from '@/shared/format'
import { noNumber, typedNumber } from '@/shared/typed'
import ReadField from './ReadField.vue'

/** A field for a number as people type it: "389k", "$389,000", ".2 ac". */
/** value: a number, or its digits as they are sent; worded: of which kind it is, where it is shown as facts are. */
const props = defineProps<{ value: string | number | null | undefined; unit?: string; worded?: string }>()
const emit = defineEmits<{ number: [value: number | null] }>()
/** What stands in the field; of money and the like with the marks that `worded` gives. */
const shown = computed(() =>
  props.value === null || props.value === undefined || props.value === ''
    ? ''
    : props.worded
      ? fact(props.worded === 'date' ? props.value : Number(props.value), props.worded, props.unit)
      : inField(Number(props.value), props.unit),
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
