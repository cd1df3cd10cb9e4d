<script setup lang="ts">
import type { Choice } from './marks'

/** Keep and Set aside, wherever a home stands; what holds is pressed, and a second press takes it back. */
defineProps<{ choice: Choice; name: string; wide?: boolean }>()
defineEmits<{ keep: []; aside: []; back: [] }>()
</script>

<template>
  <span class="decide" :class="{ wide }" role="group" :aria-label="`Decide on ${name}`">
    <button
      type="button"
      class="keep"
      :aria-label="`${choice === 'kept' ? 'Kept' : 'Keep'} ${name}`"
      :aria-pressed="choice === 'kept'"
      :title="choice === 'kept' ? 'Kept: press to leave it undecided (U)' : 'Keep it as a comp (K)'"
      @click.stop="choice === 'kept' ? $emit('back') : $emit('keep')"
    >
      {{ choice === 'kept' ? 'Kept' : 'Keep' }}
    </button>
    <button
      type="button"
      :aria-label="`${choice === 'set_aside' ? 'Aside' : 'Set aside'} ${name}`"
      :aria-pressed="choice === 'set_aside'"
      :title="
        choice === 'set_aside'
          ? 'Set aside: press to leave it undecided (U)'
          : 'Set it aside, with a reason (X)'
      "
      @click.stop="choice === 'set_aside' ? $emit('back') : $emit('aside')"
    >
      {{ choice === 'set_aside' ? 'Aside' : 'Set aside' }}
    </button>
  </span>
</template>

<style scoped>
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
  font-size: 11.5px;
  line-height: 17px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  background: rgb(var(--v-theme-surface));
  color: rgb(var(--v-theme-slate));
  white-space: nowrap;
  cursor: pointer;
}
.wide button {
  padding: 0 12px;
  font-size: 13px;
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
