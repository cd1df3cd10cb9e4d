<script setup lang="ts">
import { computed } from 'vue'
import { day } from '@/shared/format'
import { dateLike, noDate, typedDate } from '@/shared/typed'
import ReadField from './ReadField.vue'

/** A field for a day as people type it: "10/31/26", "Oct 31, 2026". The value, and what is emitted, is ISO. */
const props = defineProps<{ value: string | null | undefined }>()
const emit = defineEmits<{ date: [iso: string | null] }>()
const shown = computed(() => (props.value ? day(props.value) : ''))
const take = (iso: string | number | null) => emit('date', iso === null ? null : String(iso))
</script>

<template>
  <ReadField :value="shown" :read="typedDate" :told="noDate" :placeholder="dateLike()" @read="take" />
</template>
