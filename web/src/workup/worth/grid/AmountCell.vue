<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { computed, ref } from 'vue'
import { signed } from '@/shared/format'
import { useGridTyping } from './useGridTyping'
import type { Cell } from './useGridRows'

/** What one difference of one comp comes to: the amount, how it is worked out while it is looked at, and back to that. */
const props = defineProps<{ cell: Cell; listing: string; label: string; difference: string }>()
const { faultAt, typeAmount, amountBack } = useGridTyping()
const looked = ref(false)
const fault = computed(() => faultAt(`${props.listing} ${props.cell.field}`))
const formula = computed(() =>
  props.cell.apart
    ? `${props.cell.formula}; equal for all comps, added once after their mean`
    : props.cell.formula,
)
</script>

<template>
  <td class="num cell" :class="{ own: cell.overridden }" :title="formula">
    <TypedInput
      class="typed-in"
      :value="cell.amount === null || cell.apart ? '' : signed(cell.amount)"
      :placeholder="cell.apart ? 'once' : cell.amount === null ? 'unknown' : ''"
      :aria-label="label"
      :aria-invalid="!!fault"
      @typed="typeAmount(listing, cell.field, $event)"
      @focus="looked = true"
      @blur="looked = false"
    />
    <span v-if="looked && cell.formula" class="formula small">{{ formula }}</span>
    <span v-if="fault" class="clay small fault" role="alert">{{ fault }}</span>
    <span v-if="!cell.overridden && !cell.apart" class="under quiet">{{ difference }}</span>
    <LinkButton
      v-if="cell.overridden"
      class="under"
      :title="`Back to ${signed(cell.computed)}`"
      @click="amountBack(listing, cell.field)"
    >
      {{ cell.computed === null ? 'back' : `not ${signed(cell.computed)}` }}
    </LinkButton>
  </td>
</template>

<style scoped>
.cell {
  position: relative;
}
.formula {
  position: absolute;
  z-index: 3;
  right: 0;
  top: calc(100% - 4px);
  width: max-content;
  max-width: 300px;
  padding: 4px 8px;
  text-align: left;
  white-space: normal;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  box-shadow: 0 4px 12px rgba(20, 40, 50, 0.16);
}
.own .typed-in {
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
</style>
