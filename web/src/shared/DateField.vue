<script setup lang="ts">
import { computed } from 'vue'
import { noDate, typedDate } from './format'
import ReadField from './ReadField.vue'

/** A field for a day as people type it: "10/31/26", "Oct 31, 2026". The value, and what is emitted, is ISO. */
const props = defineProps<{ value: string | null | undefined }>()
const emit = defineEmits<{ date: [iso: string | null] }>()
/** As it is typed here: month, day, year. */
const shown = computed(() => (props.value ? props.value.replace(/^(\d+)-(\d+)-(\d+)$/, '$2/$3/$1') : ''))
const take = (iso: string | number | null) => emit('date', iso === null ? null : String(iso))
</script>

<template>
  <ReadField :value="shown" :read="typedDate" :told="noDate" placeholder="mm/dd/yyyy" @read="take" />
</template>
