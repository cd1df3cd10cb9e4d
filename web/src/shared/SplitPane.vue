<script setup lang="ts">
import { ref } from 'vue'

/** Two things side by side; the divider is dragged, moved by arrow keys, or sent to either end (Home, End). */
const share = defineModel<number>({ required: true }) // of the left, in percent; 0 and 100 give one all the space
const props = defineProps<{ left: string; right: string; usual: number; only?: 'left' | 'right' }>()
const box = ref<HTMLElement>()
const dragging = ref(false)

function set(percent: number) {
  share.value = percent < 12 ? 0 : percent > 88 ? 100 : Math.round(percent)
}
function drag(event: PointerEvent) {
  if (!dragging.value || !box.value) return
  const { left, width } = box.value.getBoundingClientRect()
  set(((event.clientX - left) / width) * 100)
}
function start(event: PointerEvent) {
  dragging.value = true
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
function step(event: KeyboardEvent) {
  const by: Record<string, number> = { ArrowLeft: -4, ArrowRight: 4 }
  const move = by[event.key]
  if (move) {
    const from = share.value === 0 ? 8 : share.value === 100 ? 92 : share.value
    set(from + move)
  } else if (event.key === 'Home') share.value = 0
  else if (event.key === 'End') share.value = 100
  else if (event.key === 'Enter') share.value = props.usual
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div
    ref="box"
    class="split"
    :class="{ dragging }"
    :style="{
      gridTemplateColumns: only ? '1fr' : `minmax(0, ${share}fr) 9px minmax(0, ${100 - share}fr)`,
    }"
  >
    <div v-show="only !== 'right'" class="side"><slot name="left" /></div>
    <div
      v-show="!only"
      class="divider"
      role="separator"
      aria-orientation="vertical"
      tabindex="0"
      :aria-label="`Divider between ${left} and ${right}: arrows move it, Home and End give one all the space`"
      :title="`Drag, or double-click: ${left} and ${right} as usual`"
      :aria-valuenow="share"
      aria-valuemin="0"
      aria-valuemax="100"
      @pointerdown="start"
      @pointermove="drag"
      @pointerup="dragging = false"
      @dblclick="share = usual"
      @keydown="step"
    />
    <div v-show="only !== 'left'" class="side"><slot name="right" /></div>
  </div>
</template>

<style scoped>
.split {
  display: grid;
  min-height: 0;
  height: 100%;
}
.side {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
.divider {
  cursor: col-resize;
  touch-action: none;
  background: linear-gradient(
    90deg,
    transparent 4px,
    rgb(var(--v-theme-line)) 4px,
    rgb(var(--v-theme-line)) 5px,
    transparent 5px
  );
}
.divider::after {
  content: '';
  display: block;
  position: relative;
  top: calc(50% - 16px);
  left: 3px;
  width: 3px;
  height: 32px;
  border-radius: var(--corner-s);
  background: rgb(var(--v-theme-line));
}
.divider:focus-visible {
  outline-offset: -2px;
}
.divider:hover,
.divider:focus-visible,
.dragging .divider {
  background-color: rgb(var(--v-theme-mist));
}
.dragging {
  user-select: none;
}
</style>
