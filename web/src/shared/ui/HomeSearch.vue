<script setup lang="ts">
import { vFocus } from '@/shared/vFocus'
import { useLookup, type Hit } from '@/shared/useLookup'
import LookupList from './LookupList.vue'
import TextField from './fields/TextField.vue'

/** A field in which a home is named by its address or number; what is found is taken by a press or by Enter. */
const props = defineProps<{ label: string; id: string; unlisted?: boolean }>()
const emit = defineEmits<{ take: [hit: Hit]; typed: [] }>()
const text = defineModel<string>({ required: true })
const { hits, nearest, nothing, at, move, taken, failed } = useLookup(text, ['parcel', 'listing'])
async function entered() {
  const hit = await taken()
  if (hit) emit('take', hit)
}
function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (event.key === 'Enter') void entered()
  else return
  event.preventDefault()
}
</script>

<template>
  <TextField
    v-model="text"
    v-focus
    class="named"
    autocomplete="off"
    :aria-label="props.label"
    :placeholder="props.label"
    @input="emit('typed')"
    @keydown="key"
  />
  <LookupList
    v-if="!unlisted && text.trim().length > 1"
    :id="id"
    plain
    :hits="hits"
    :nearest="nearest"
    :nothing="nothing"
    :at="at"
    :text="text"
    @open="emit('take', $event)"
  />
  <p v-if="failed" class="clay small mt-2" role="alert">{{ failed }}</p>
</template>

<style scoped>
.named {
  width: 100%;
}
</style>
