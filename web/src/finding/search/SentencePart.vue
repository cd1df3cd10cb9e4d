<script setup lang="ts">
import MenuBox from '@/shared/ui/MenuBox.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import PartEditor from './PartEditor.vue'
import type { SearchTools } from './useSearch'

/** One part of the sentence, which opens what it is changed by. Others of its kind change with a slider; this one stays as it is. */
defineProps<{ text: string; part: string; fault?: string; search: SearchTools }>()
const opened = defineModel<boolean>({ required: true })
</script>

<template>
  <MenuBox v-model="opened" location="bottom start">
    <template #press="{ props: activator }">
      <PressArea v-bind="activator" class="part" :class="{ faulty: fault !== undefined }" :title="fault">
        {{ text }}
      </PressArea>
    </template>
    <PartEditor v-if="opened" :part="part" :search="search" @close="opened = false" />
  </MenuBox>
</template>

<style scoped>
.part {
  font-weight: 600;
  text-decoration: underline;
  text-decoration-color: rgb(var(--v-theme-rain));
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
  cursor: pointer;
}
.faulty {
  text-decoration-color: rgb(var(--v-theme-clay));
  text-decoration-style: wavy;
}
.part:hover {
  color: rgb(var(--v-theme-rain));
}
</style>
