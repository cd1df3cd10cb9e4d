<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { onUnmounted } from 'vue'
import IconButton from './IconButton.vue'

/** What lies over the page until it is closed: by its cross, by Escape, by a press beside it. */
withDefaults(defineProps<{ title: string; width: number; shown?: boolean }>(), { shown: true })
const emit = defineEmits<{ close: [] }>()
// who works by keys goes on where the dialog was opened
const before = document.activeElement as HTMLElement | null
onUnmounted(() => {
  if (before?.isConnected && before !== document.body) before.focus({ preventScroll: true })
})
</script>

<template>
  <v-dialog
    :model-value="shown"
    :max-width="width"
    :aria-label="title"
    @update:model-value="$event || emit('close')"
  >
    <div class="sheet dialog">
      <header>
        <slot name="head">
          <h2>{{ title }}</h2>
        </slot>
        <span class="acts"><slot name="acts" /></span>
      </header>
      <slot />
      <IconButton
        class="close"
        :icon="mdiClose"
        size="small"
        name="Close"
        title="Close (Esc)"
        @click="emit('close')"
      />
    </div>
  </v-dialog>
</template>

<style scoped>
.dialog {
  position: relative;
  color: rgb(var(--v-theme-slate));
  padding: 14px 22px 20px;
  max-height: 86vh;
  overflow: auto;
}
header {
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 36px;
  margin: 0 44px 8px 0;
}
/* last by keys, where it is sought by eye */
.close {
  position: absolute;
  top: 14px;
  right: 18px;
}
.acts {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 16px;
}
</style>
