<script setup lang="ts">
import { ref } from 'vue'
import { useKeys } from '@/shared/keys'

defineProps<{ name: string }>()
const emit = defineEmits<{ done: [reason: string]; close: [] }>()
const REASONS: Record<string, string> = {
  c: 'other condition',
  l: 'other location',
  s: 'other size',
  k: 'other kind of home',
  n: 'no ordinary sale',
  o: 'too old a sale',
}
const own = ref('')
function key(event: KeyboardEvent) {
  if (event.key === 'Escape') emit('close')
  else if ((event.target as HTMLElement).tagName === 'INPUT') {
    if (event.key === 'Enter') emit('done', own.value.trim())
    return
  } else if (event.key === 'Enter') emit('done', '')
  else if (REASONS[event.key.toLowerCase()]) emit('done', REASONS[event.key.toLowerCase()])
  else return
  event.preventDefault()
  event.stopPropagation()
}
useKeys(key, true)
</script>

<template>
  <v-dialog :model-value="true" width="400" @update:model-value="emit('close')">
    <v-card class="pa-5">
      <h2 class="mb-3">Why set {{ name }} aside?</h2>
      <button
        v-for="(words, k) in REASONS"
        :key="k"
        type="button"
        class="reason"
        @click="emit('done', words)"
      >
        <kbd>{{ k.toUpperCase() }}</kbd> {{ words }}
      </button>
      <button type="button" class="reason" @click="emit('done', '')"><kbd>Enter</kbd> no reason</button>
      <v-text-field v-model="own" class="mt-3" label="In your own words" maxlength="200" />
    </v-card>
  </v-dialog>
</template>

<style scoped>
.reason {
  display: flex;
  gap: 12px;
  align-items: center;
  width: 100%;
  padding: 6px 8px;
  border-radius: 4px;
  cursor: pointer;
}
.reason:hover {
  background: rgb(var(--v-theme-mist));
}
kbd {
  min-width: 26px;
  text-align: center;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  font: inherit;
  font-size: 12px;
  padding: 1px 6px;
}
</style>
