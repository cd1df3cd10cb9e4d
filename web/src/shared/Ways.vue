<script setup lang="ts" generic="T extends string">
import PressArea from '@/shared/ui/PressArea.vue'
import { computed } from 'vue'

/** A few ways to look at the same things, one of them pressed. */
const props = defineProps<{ ways: Record<T, string>; label: string }>()
const way = defineModel<T>({ required: true })
const names = computed(() => Object.keys(props.ways) as T[])
</script>

<template>
  <div class="ways" role="group" :aria-label="label">
    <PressArea v-for="name in names" :key="name" :aria-pressed="way === name" @click="way = name">
      {{ ways[name] }}
    </PressArea>
  </div>
</template>

<style scoped>
.ways {
  display: flex;
  flex: none;
  border: var(--line);
  border-radius: var(--corner);
  overflow: hidden;
}
button {
  white-space: nowrap;
  padding: 3px 12px;
  font-size: var(--text-s);
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: rgb(var(--v-theme-surface));
  box-shadow: inset 0 -2px rgb(var(--v-theme-slate));
  font-weight: 600;
}
</style>
