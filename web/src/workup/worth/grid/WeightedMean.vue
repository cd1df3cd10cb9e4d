<script setup lang="ts">
import { computed } from 'vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { money, number } from '@/shared/format'
import { useWorkup } from '../../useWorkup'
import { useGridTyping } from './useGridTyping'

/**
 * Under the grid: why the comps weigh what they do, the model's voice beside them, and what is equal for all of them, added once
 * after their mean.
 */
const MODEL = 'model'
const { faultAt, typeWeight, isTypedWeight, weightBack } = useGridTyping()
const model = computed(() => worth.data.value?.price.model)
const fault = computed(() => faultAt(`weight ${MODEL}`))
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
  <p v-if="model" class="sum">
    Beside the comps, <b>the model</b> of all sales of this kind says <b>{{ money(model.value) }}</b> and
    weighs
    <TypedInput
      class="typed-in weight"
      :value="number(100 * model.weight, 1)"
      :class="{ cedar: isTypedWeight(MODEL) }"
      inputmode="decimal"
      title="Type a share to set it, 0 to leave the model out; the comps rescale."
      aria-label="Weight of the model, percent"
      :aria-invalid="!!fault"
      @typed="typeWeight(MODEL, model.weight, $event)"
    />
    %
    <LinkButton
      v-if="isTypedWeight(MODEL)"
      aria-label="Weight of the model: back to the formula"
      title="Back to the formula"
      @click="weightBack(MODEL)"
    >
      ↺
    </LinkButton>
    <span v-if="fault" class="clay small" role="alert">{{ fault }}</span>
    <span class="quiet small">
      It weighs a fifth, and more, up to half, the farther it is from the comps: on past sales that came
      nearest.
    </span>
  </p>
  <p v-if="apart.length" class="sum">
    Weighted together {{ money(total - added) }}
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
  width: calc(100cqw - 56px);
  padding: 6px 8px;
}
.weight {
  width: 46px;
  text-align: right;
}
.cedar {
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
</style>
