<script setup lang="ts">
import MenuBox from '@/shared/ui/MenuBox.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { money, priced } from '@/shared/format'
import type { Below } from './useRail'
import { useWorkup } from './useWorkup'

/** What lies beyond an end of the rail: how many, and which when it is pressed; each home opens. */
defineProps<{ side: 'low' | 'high'; homes: Below[]; edge: number }>()
const { id, lit } = useWorkup()
</script>

<template>
  <MenuBox location="top">
    <template #press="{ props }">
      <PressArea
        v-bind="props"
        class="end"
        :class="side"
        :aria-label="`${homes.length} ${side === 'low' ? 'below' : 'above'} ${money(edge)}: show them`"
        :title="`${homes.length} ${side === 'low' ? 'below' : 'above'} ${priced(edge)}`"
      >
        {{ side === 'low' ? `‹ ${homes.length}` : `${homes.length} ›` }}
      </PressArea>
    </template>
    <ul class="sheet list" :aria-label="`${side === 'low' ? 'Below' : 'Above'} the scale`">
      <li
        v-for="h in homes"
        :key="h.key + h.words"
        @mouseenter="lit = h.key || null"
        @mouseleave="lit = null"
      >
        <router-link v-if="h.key" :to="{ name: 'comps', params: { id }, query: { home: h.key } }">{{
          h.words
        }}</router-link>
        <span v-else>{{ h.words }}</span>
      </li>
    </ul>
  </MenuBox>
</template>

<style scoped>
.end {
  position: absolute;
  top: 36px;
  padding: 1px 7px;
  border: var(--line);
  border-radius: 9px;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  font-size: var(--small);
  cursor: pointer;
}
.low {
  left: 4px;
}
.high {
  right: 4px;
}
.list {
  max-height: 260px;
  overflow: auto;
  padding: 10px 16px;
  list-style: none;
  font-size: var(--text-s);
}
.list a {
  color: rgb(var(--v-theme-rain));
}
</style>
