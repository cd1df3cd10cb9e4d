<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import { KEEPING, ofHomes, TICKING } from '@/shared/keys/keyTable'
import { useFinding } from './useFinding'

defineOptions({ inheritAttrs: false })
/** The keys of the room, for whoever asks. */
const { way } = useFinding()
const rows = ofHomes(way === 'keep' ? KEEPING : TICKING)
</script>

<template>
  <MenuBox>
    <template #press="{ props: activator }">
      <ActButton v-bind="{ ...activator, ...$attrs }" plain>Keys</ActButton>
    </template>
    <ul class="sheet hints" aria-label="Keys of this room">
      <li v-for="[pressed, words] in rows" :key="pressed">
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
