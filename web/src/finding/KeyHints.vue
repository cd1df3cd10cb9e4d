<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import { useFinding } from './useFinding'

defineOptions({ inheritAttrs: false })
/** The keys of the room, for whoever asks. */
const { way } = useFinding()
const CHOOSING = {
  keep: [
    ['K', 'keep it, or take that back'],
    ['X', 'set it aside, with a reason'],
    ['U', 'leave it undecided'],
    ['1 … 6', 'its condition: new … damaged'],
    ['Z', 'undo'],
  ],
  tick: [['Space', 'tick it, or take that back']],
}
const KEYS = [
  ['↑ ↓', 'the home before, the next'],
  ['Enter', 'open it'],
  ...CHOOSING[way],
  ['P', 'its pictures beside your home’s'],
  ['S', 'side by side, and back'],
  ['F', 'in figures, and back'],
  ['L', 'what the marks mean'],
]
</script>

<template>
  <MenuBox>
    <template #press="{ props: activator }">
      <ActButton v-bind="{ ...activator, ...$attrs }" plain>Keys</ActButton>
    </template>
    <ul class="sheet hints" aria-label="Keys of this room">
      <li v-for="[pressed, words] in KEYS" :key="pressed">
        <kbd>{{ pressed }}</kbd> {{ words }}
      </li>
    </ul>
  </MenuBox>
</template>

<style scoped>
.hints {
  list-style: none;
  padding: 10px 16px;
}
.hints kbd {
  display: inline-block;
  min-width: 52px;
  font: inherit;
  font-weight: 600;
}
</style>
