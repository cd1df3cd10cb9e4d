<script setup lang="ts">
import LinkButton from '../LinkButton.vue'
import PressArea from '../PressArea.vue'
import { computed } from 'vue'

/** Which of several are shown, and in what order. Nothing chosen stands for the usual. */
const props = defineProps<{ all: Record<string, string>; chosen: string[]; label: string }>()
const emit = defineEmits<{ choose: [names: string[]] }>()
const shown = computed(() => (props.chosen.length ? props.chosen : Object.keys(props.all)))
const others = computed(() => Object.keys(props.all).filter((n) => !shown.value.includes(n)))
function move(name: string, by: number) {
  const next = shown.value.filter((n) => n !== name)
  next.splice(Math.max(0, Math.min(next.length, shown.value.indexOf(name) + by)), 0, name)
  emit('choose', next)
}
function drop(name: string) {
  if (shown.value.length > 1)
    emit(
      'choose',
      shown.value.filter((n) => n !== name),
    )
}
</script>

<template>
  <details class="choice">
    <summary>{{ label }}: {{ chosen.length ? `${shown.length} chosen` : 'as usual' }}</summary>
    <ol :aria-label="label">
      <li v-for="(n, i) in shown" :key="n">
        <span>{{ all[n] ?? n }}</span>
        <PressArea :disabled="i === 0" :aria-label="`${all[n]} up`" @click="move(n, -1)">↑</PressArea>
        <PressArea :disabled="i === shown.length - 1" :aria-label="`${all[n]} down`" @click="move(n, 1)">
          ↓
        </PressArea>
        <PressArea :aria-label="`Leave out ${all[n]}`" @click="drop(n)">×</PressArea>
      </li>
    </ol>
    <p v-if="others.length" class="small">
      <LinkButton v-for="n in others" :key="n" class="small other" @click="emit('choose', [...shown, n])">
        + {{ all[n] }}
      </LinkButton>
    </p>
    <LinkButton v-if="chosen.length" class="small" @click="emit('choose', [])"> as usual </LinkButton>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
  font-size: var(--text-s);
}
ol {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 22px 22px 22px;
  font-size: var(--text-s);
}
li button {
  cursor: pointer;
}
li button:disabled {
  opacity: 0.3;
}
.other {
  margin-right: 8px;
}
</style>
