<script setup lang="ts">
import RadioButton from '@/shared/ui/RadioButton.vue'
import { computed } from 'vue'
import { vFocus } from '@/shared/vFocus'
import { number } from '@/shared/format'
import { useSpread } from '../search/useSpread'
import type { SearchTools } from '../search/useSearch'

/** Yes, no, or either, with how many homes around say so. */
const props = defineProps<{ part: string; search: SearchTools }>()
const spread = useSpread(() => props.part)
const limits = computed(() => props.search.criterion(props.part))
const held = computed(() => {
  const { low, high } = limits.value ?? {}
  return low === 1 ? 'yes' : high === 0 ? 'no' : 'either'
})
const WAYS = { yes: [1, 1], no: [0, 0], either: [null, null] } as const
function take(way: keyof typeof WAYS) {
  const [low, high] = WAYS[way]
  void props.search.take(props.search.withRange(props.part, low, high))
}
</script>

<template>
  <div role="radiogroup" :aria-label="search.label(part)">
    <p v-for="(_, way) in WAYS" :key="way">
      <label class="way">
        <RadioButton v-focus="held === way" :name="part" :on="held === way" @taken="take(way)" />
        <span>{{ way }}</span>
        <b>{{ way === 'either' ? '' : number(spread.data.value?.words[way] ?? 0) }}</b>
      </label>
    </p>
  </div>
</template>

<style scoped>
.way {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  gap: 4px;
  align-items: center;
  padding: 2px 0;
}
b {
  font-weight: 500;
}
</style>
