<script setup lang="ts">
import IconButton from '@/shared/ui/IconButton.vue'
import { mdiCircleOutline, mdiFence, mdiGesture, mdiRectangleOutline, mdiVectorPolygon } from '@mdi/js'
import type { Tool } from '@/shared/map/mapShapes'

/** noFences: where there is no home that a way could lead from. */
const props = defineProps<{ noFences?: boolean }>()
const tool = defineModel<Tool | null>({ required: true })
const TOOLS: [Tool, string, string][] = [
  ['area', mdiVectorPolygon, 'Draw an area: click its corners, double-click the last'],
  ['rectangle', mdiRectangleOutline, 'Draw a rectangle: click two corners'],
  ['circle', mdiCircleOutline, 'Draw a circle: click its middle, then its edge'],
  ['freehand', mdiGesture, 'Draw an area freehand'],
  ['fence', mdiFence, 'Draw a fence that comps must not cross'],
]
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Draw on the map">
    <IconButton
      v-for="[name, icon, words] in TOOLS.filter(([t]) => t !== 'fence' || !props.noFences)"
      :key="name"
      :icon="icon"
      size="34"
      variant="flat"
      :name="words"
      :aria-pressed="tool === name"
      :title="words"
      :class="{ on: tool === name }"
      @click="tool = tool === name ? null : name"
    />
  </div>
</template>

<style scoped>
.tools {
  position: absolute;
  top: 8px;
  right: 8px;
  display: grid;
  border: var(--line);
  border-radius: var(--corner);
  overflow: hidden;
  background: rgb(var(--v-theme-surface));
}
.tools :deep(.v-icon) {
  font-size: var(--title-s);
}
.tools :deep(.v-btn) {
  border-radius: 0;
}
.on {
  color: rgb(var(--v-theme-cedar));
}
</style>
