<script setup lang="ts">
import DialogBox from '@/shared/ui/DialogBox.vue'
import LabelledField from '@/shared/ui/fields/LabelledField.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { ref } from 'vue'
import { useKeys } from '@/shared/keys/keys'

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
    if (event.key !== 'Enter') return
    emit('done', own.value.trim())
  } else if (event.key === 'Enter') emit('done', '')
  else if (REASONS[event.key.toLowerCase()]) emit('done', REASONS[event.key.toLowerCase()])
  else return
  event.preventDefault()
  event.stopPropagation()
}
useKeys(key, true)
</script>

<template>
  <DialogBox :title="`Why set ${name} aside?`" :width="400" @close="emit('close')">
    <PressArea v-for="(words, k) in REASONS" :key="k" class="reason" @click="emit('done', words)">
      <kbd>{{ k.toUpperCase() }}</kbd> {{ words }}
    </PressArea>
    <PressArea class="reason" @click="emit('done', '')"><kbd>Enter</kbd> no reason</PressArea>
    <LabelledField v-model="own" class="mt-3" label="In your own words" maxlength="200" />
  </DialogBox>
</template>

<style scoped>
.reason {
  display: flex;
  gap: 12px;
  align-items: center;
  width: 100%;
  padding: 6px 8px;
  border-radius: var(--corner);
  cursor: pointer;
}
.reason:hover {
  background: rgb(var(--v-theme-mist));
}
kbd {
  min-width: 26px;
  text-align: center;
  border: var(--line);
  border-radius: var(--corner);
  font: inherit;
  font-size: var(--small);
  padding: 1px 6px;
}
</style>
