<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { ref } from 'vue'
import { usePaper } from './usePaper'

/** The pages of the report in their order, small: press to look, drag to move; and those that are left out. */
const at = defineModel<number>({ required: true })
const { on, off, label, picture, silent, move, toggle } = usePaper()
const dragged = ref<string | null>(null)
function drop(to: number) {
  if (dragged.value) move(dragged.value, to)
  dragged.value = null
}
function key(event: KeyboardEvent, page: string, i: number) {
  if (event.altKey && event.key === 'ArrowUp') move(page, i - 1)
  else if (event.altKey && event.key === 'ArrowDown') move(page, i + 1)
  else if (event.key === 'Delete') toggle(page)
  else return
  event.preventDefault()
}
</script>

<template>
  <nav class="pages" aria-label="Pages of the report">
    <div
      v-for="(page, i) in on"
      :key="page"
      class="one"
      draggable="true"
      @dragstart="dragged = page"
      @dragover.prevent
      @drop.prevent="drop(i)"
    >
      <PressArea
        :class="{ at: i === at }"
        :aria-current="i === at"
        title="Drag, or Alt with the arrows, to move it; Delete to leave it out"
        @click="at = i"
        @keydown="key($event, page, i)"
      >
        <span v-if="silent(page)" class="none">not printed</span>
        <img v-else :key="page" :src="picture(page)" alt="" loading="lazy" />
        <span>{{ i + 1 }} {{ label(page) }}</span>
      </PressArea>
      <PressArea
        v-if="on.length > 1"
        class="away"
        :aria-label="`Leave out ${label(page)}`"
        @click="toggle(page)"
      >
        ×
      </PressArea>
    </div>
    <div v-if="off.length" class="off">
      <p class="quiet small">Left out</p>
      <LinkButton v-for="page in off" :key="page" class="small" @click="toggle(page)">
        + {{ label(page) }}
      </LinkButton>
    </div>
  </nav>
</template>

<style scoped>
.pages {
  overflow: auto;
  padding: 16px 14px;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.one {
  position: relative;
}
.one button:first-child {
  width: 100%;
  cursor: grab;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
}
img {
  display: block;
  width: 100%;
  aspect-ratio: 17 / 22;
  object-fit: cover;
  object-position: top;
  background: #fff;
  border: var(--line);
}
.none {
  display: grid;
  place-items: center;
  aspect-ratio: 17 / 22;
  border: 1px dashed rgb(var(--v-theme-quiet));
  color: rgb(var(--v-theme-quiet));
}
.at .none {
  outline: 2px solid rgb(var(--v-theme-on-surface));
}
.pages .at {
  color: rgb(var(--v-theme-on-surface)) !important;
  font-weight: 600;
}
.at img {
  outline: 2px solid rgb(var(--v-theme-on-surface));
}
.away {
  position: absolute;
  top: 2px;
  right: 2px;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  background: rgb(var(--v-theme-surface));
  border: var(--line);
  opacity: 0;
}
.one:hover .away,
.away:focus-visible {
  opacity: 1;
}
.off {
  display: grid;
  justify-items: start;
  gap: 3px;
}
</style>
