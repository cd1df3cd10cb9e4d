<script setup lang="ts">
import IconButton from '@/shared/ui/IconButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { mdiUndoVariant } from '@mdi/js'
import { computed } from 'vue'
import { useGridTyping } from '../grid/useGridTyping'
import { useRateWords } from './useRateWords'
import { localHead } from '@/shared/localForm'

/** The rate of one row: what a unit is worth, what speaks for it, and back to that. */
const props = defineProps<{ field: string; label: string }>()
const { rates, strength, evidence, typedRate, shownRate } = useRateWords()
const { faultAt, typeRate, rateBack } = useGridTyping()
const rate = computed(() => rates.value[props.field])
const UNITS: Record<string, string> = { market_change: '%/mo', location: localHead('$/%') }
</script>

<template>
  <td class="num rate">
    <span class="typed" :class="{ cedar: typedRate(field) }">
      <IconButton
        v-if="typedRate(field)"
        :icon="mdiUndoVariant"
        size="x-small"
        :name="`Rate of ${label}: back to the evidence`"
        @click="rateBack(field)"
      />
      <TypedInput
        class="typed-in"
        :value="shownRate(field)"
        inputmode="decimal"
        :aria-label="`Rate of ${label}`"
        :aria-invalid="!!faultAt(field)"
        @typed="typeRate(field, $event)"
      />
      <span class="quiet small unit">{{ UNITS[field] ?? localHead('$') }}</span>
    </span>
    <span class="evidence" :class="{ weak: rate?.weak }" :title="rate?.says">
      <i v-if="rate" :style="{ width: `${strength(field)}px` }" />
      {{ evidence(field) }}
    </span>
    <span v-if="faultAt(field)" class="clay small fault" role="alert">{{ faultAt(field) }}</span>
  </td>
</template>

<style scoped>
.rate {
  min-width: 138px;
}
.typed {
  display: inline-flex;
  align-items: center;
  justify-content: flex-end;
}
.unit {
  width: 34px;
  text-align: left;
  padding-left: 4px;
}
.evidence {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 6px;
  font-size: var(--tiny);
  color: rgb(var(--v-theme-quiet));
}
.evidence i {
  display: inline-block;
  height: 4px;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-rain));
}
.evidence.weak i {
  background: rgb(var(--v-theme-lamp));
}
</style>
