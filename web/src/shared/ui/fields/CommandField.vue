<script setup lang="ts">
import { mdiMagnify } from '@mdi/js'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import LookupList from '../LookupList.vue'
import { isFocusUnmoved } from '@/shared/focusBefore'
import { useLookup, type Hit } from '@/shared/useLookup'

const props = defineProps<{ large?: boolean }>()
const router = useRouter()
const text = ref('')
const field = ref<HTMLInputElement>()
const focused = ref(false)
const { hits, nearest, offered, nothing, at, move, taken, failed, open } = useLookup(text)
const id = props.large ? 'desk-answers' : 'command-answers'

const commands: Record<string, string> = {
  desk: '/',
  workups: '/workups',
  market: '/market',
  around: '/around',
  records: '/records',
  settings: '/settings',
}

// what was typed was for another place
watch(
  () => router.currentRoute.value.path,
  () => (text.value = ''),
)

async function take(hit: Hit) {
  await open(hit)
  if (!failed.value) {
    text.value = ''
    field.value?.blur()
  }
}

async function look(hit: Hit) {
  if (hit.kind === 'workup') return take(hit)
  const query = hit.kind === 'area' ? { area: hit.key } : { kind: hit.kind, key: hit.key }
  await router.push({ name: 'around', query })
  text.value = ''
  field.value?.blur()
}

async function entered(act: (hit: Hit) => Promise<void>) {
  const hit = await taken()
  if (hit) await act(hit)
}

function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (event.key === 'Escape') field.value?.blur()
  else if (event.key === 'Enter') {
    const command = commands[text.value.trim().toLowerCase()]
    if (command) {
      void router.push(command)
      text.value = ''
    } else void entered(event.shiftKey ? look : take)
  } else return
  event.preventDefault()
}

function shortcut(event: KeyboardEvent) {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault()
    field.value?.focus()
    field.value?.select()
  }
}
onMounted(() => {
  if (props.large && isFocusUnmoved()) field.value?.focus()
  if (!props.large) window.addEventListener('keydown', shortcut)
})
onBeforeUnmount(() => window.removeEventListener('keydown', shortcut))
</script>

<template>
  <div class="command" :class="{ large }">
    <v-icon :icon="mdiMagnify" :size="large ? 26 : 19" class="glass quiet" />
    <input
      ref="field"
      v-model="text"
      type="text"
      role="combobox"
      autocomplete="off"
      spellcheck="false"
      aria-autocomplete="list"
      :aria-label="large ? 'Which home?' : 'Which home, number, workup or command?'"
      :aria-expanded="focused && offered.length > 0"
      :aria-controls="id"
      :aria-activedescendant="offered[at] && `${id}-${at}`"
      :placeholder="
        large ? 'Part of an address, a parcel or listing number' : 'Which home, number, workup or command?'
      "
      @focus="focused = true"
      @blur="focused = false"
      @keydown="key"
    />
    <kbd v-if="!large">Ctrl K</kbd>
    <LookupList
      v-if="focused && text.trim().length > 1"
      :id="id"
      class="answers"
      :hits="hits"
      :nearest="nearest"
      :nothing="nothing"
      :at="at"
      :text="text"
      @open="take"
      @around="look"
    />
    <p v-if="failed" class="failed clay small" role="alert">{{ failed }}</p>
  </div>
</template>

<style scoped>
.command {
  position: relative;
  width: 100%;
  max-width: 640px;
}
.glass {
  position: absolute;
  left: 10px;
  top: 50%;
  transform: translateY(-50%);
}
input {
  width: 100%;
  height: 36px;
  padding: 0 64px 0 36px;
  border-radius: var(--corner-l);
  background: rgb(var(--v-theme-mist));
  border: 1px solid transparent;
  color: inherit;
}
input::placeholder {
  color: rgb(var(--v-theme-quiet));
  opacity: 1;
}
input:focus {
  outline: none;
  border-color: rgb(var(--v-theme-rain));
  background: rgb(var(--v-theme-surface));
}
kbd {
  position: absolute;
  right: 10px;
  top: 9px;
  font: inherit;
  font-size: var(--tiny);
  color: rgb(var(--v-theme-quiet));
}
.answers {
  position: absolute;
  left: 0;
  right: 0;
  top: calc(100% + 4px);
  z-index: 20;
}
.failed {
  position: absolute;
  top: calc(100% + 6px);
}
.large {
  max-width: none;
}
.large input {
  height: 58px;
  font-size: var(--title);
  padding-left: 50px;
  background: rgb(var(--v-theme-surface));
  border-color: rgb(var(--v-theme-line));
}
.large .glass {
  left: 14px;
}
</style>
