<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { noDate, typedDate } from './format'
import TypedInput from './TypedInput.vue'

/** A field for a day as people type it. What cannot be read stays in the field with a sentence beside it, and is not sent. */
const props = defineProps<{ value: string | null | undefined }>()
const emit = defineEmits<{ date: [iso: string | null] }>()
defineOptions({ inheritAttrs: false })
const fault = ref('')
watch(
  () => props.value,
  () => (fault.value = ''),
)
/** As it is typed here: month, day, year. */
const shown = computed(() => (props.value ? props.value.replace(/^(\d+)-(\d+)-(\d+)$/, '$2/$3/$1') : ''))
function typed(text: string) {
  const iso = typedDate(text)
  fault.value = typeof iso === 'number' ? noDate(text) : ''
  if (typeof iso !== 'number') emit('date', iso)
}
</script>

<template>
  <TypedInput
    v-bind="$attrs"
    :value="shown"
    placeholder="mm/dd/yyyy"
    :aria-invalid="!!fault"
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
