<script setup lang="ts">
/** Two days, both included, either left open: what is typed of both goes together. */
import DateField from '@/shared/ui/fields/DateField.vue'
import { ref, watch } from 'vue'
import { useEnds } from './useEnds'

type Day = string | null
const props = defineProps<{ low: Day; high: Day; names: [string, string] }>()
const emit = defineEmits<{ dates: [low: Day, high: Day] }>()
/** What is typed, until it is taken. */
const typed = ref<{ low?: Day; high?: Day }>({})
const ends = () => ({ low: props.low, high: props.high, ...typed.value })
const { pair, changed, left } = useEnds(
  () => {
    const { low, high } = ends()
    return !!low && !!high && low > high
  },
  () => {
    const { low, high } = ends()
    emit('dates', low, high)
  },
)
watch(
  () => [props.low, props.high],
  () => (typed.value = {}),
)
function type(end: 'low' | 'high', day: Day) {
  typed.value[end] = day
  changed()
}
</script>

<template>
  <div ref="pair" class="ends" @focusout="left">
    <label v-for="(end, i) in ['low', 'high'] as const" :key="end">
      <slot :name="end" />
      <DateField :value="ends()[end]" :aria-label="names[i]" @date="type(end, $event)" />
    </label>
  </div>
</template>

<style scoped>
.ends {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
