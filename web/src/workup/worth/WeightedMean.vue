<script setup lang="ts">
import { computed } from 'vue'
import { money } from '@/shared/format'
import { useWorkup } from '../useWorkup'

/** Under the grid: why the comps weigh what they do, and what is equal for all of them, added once after their mean. */
const { worth } = useWorkup()
const apart = computed(() => worth.data.value?.price.apart ?? [])
const added = computed(() => apart.value.reduce((sum, a) => sum + a.amount, 0))
const total = computed(
  () => worth.data.value?.price.methods.find((m) => m.name === 'adjusted_comps')?.value ?? 0,
)
</script>

<template>
  <p v-if="worth.data.value?.weights_say" class="sum small">
    <b>{{ worth.data.value.weights_say }}</b>
    <span class="quiet">
      A weight comes of likeness, how recent the sale is, how little is adjusted, and how near it comes to the
      model’s value; a share that you type stays, and the rest rescale.</span
    >
  </p>
  <p v-if="apart.length" class="sum">
    Weighted mean {{ money(total - added) }}
    <span v-for="a in apart" :key="a.field" :title="a.formula">
      {{ a.amount < 0 ? '−' : '+' }} {{ a.label.toLowerCase() }} {{ money(Math.abs(a.amount)) }}, once
    </span>
    = <b>{{ money(total) }}</b>
  </p>
</template>

<style scoped>
.sum {
  position: sticky;
  left: 0;
  width: calc(100cqw - 40px);
  padding: 6px 8px;
}
</style>
