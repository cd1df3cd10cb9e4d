<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { useChoosing } from './useChoosing'
import { useFinding, type Candidate } from './useFinding'

/**
 * Choosing a home wherever it stands: Keep and Set aside in a workup, a tick in a look. What holds is pressed, and a second
 * press takes it back.
 */
const props = defineProps<{ home: Candidate; wide?: boolean }>()
const { choiceOf, way } = useFinding()
const { keep, aside, back } = useChoosing()
const name = () => props.home.address || props.home.listing_id
/** Who ticks by mouse goes on by keys from the row, not from the box. */
function ticked(event: MouseEvent) {
  if (event.detail) requestAnimationFrame(() => (document.activeElement as HTMLElement | null)?.blur())
}
const is = (choice: 'kept' | 'set_aside') => choiceOf(props.home.listing_id) === choice
</script>

<template>
  <label v-if="way === 'tick'" class="tick" :class="{ wide }" title="Tick it (Space)" @click.stop="ticked">
    <CheckBox
      :model-value="is('kept')"
      :aria-label="`Tick ${name()}`"
      @update:model-value="is('kept') ? back(home) : keep(home)"
    />
    <span v-if="wide">{{ is('kept') ? 'ticked' : 'tick' }}</span>
  </label>
  <span v-else class="decide" :class="{ wide }" role="group" :aria-label="`Decide on ${name()}`">
    <PressArea
      class="keep"
      :aria-label="`${is('kept') ? 'Kept' : 'Keep'} ${name()}`"
      :aria-pressed="is('kept')"
      :title="is('kept') ? 'Kept: press to leave it undecided (U)' : 'Keep it as a comp (K)'"
      @click.stop="is('kept') ? back(home) : keep(home)"
    >
      {{ is('kept') ? 'Kept' : 'Keep' }}
    </PressArea>
    <PressArea
      :aria-label="`${is('set_aside') ? 'Aside' : 'Set aside'} ${name()}`"
      :aria-pressed="is('set_aside')"
      :title="
        is('set_aside') ? 'Set aside: press to leave it undecided (U)' : 'Set it aside, with a reason (X)'
      "
      @click.stop="is('set_aside') ? back(home) : aside(home)"
    >
      {{ is('set_aside') ? 'Aside' : 'Set aside' }}
    </PressArea>
  </span>
</template>

<style scoped>
.tick {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  min-width: 34px;
  min-height: 34px;
  cursor: pointer;
}
.decide {
  display: inline-grid;
  gap: 2px;
  flex: none;
}
.wide {
  grid-template-columns: auto auto;
  gap: 6px;
}
button {
  min-width: 58px;
  padding: 0 5px;
  font-size: var(--small);
  line-height: 17px;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  color: rgb(var(--v-theme-slate));
  white-space: nowrap;
  cursor: pointer;
}
.wide button {
  padding: 0 12px;
  font-size: var(--text-s);
  line-height: 27px;
}
button:hover {
  border-color: rgb(var(--v-theme-cedar));
}
button[aria-pressed='true'] {
  background: rgb(var(--v-theme-quiet));
  border-color: rgb(var(--v-theme-quiet));
  color: rgb(var(--v-theme-surface));
}
button.keep[aria-pressed='true'] {
  background: rgb(var(--v-theme-cedar));
  border-color: rgb(var(--v-theme-cedar));
}
</style>
