<script setup lang="ts">
import { vFocus } from '@/shared/vFocus'
import { computed, ref } from 'vue'
import { useLookup, type Hit } from '@/shared/useLookup'
import LookupList from './LookupList.vue'
import TextField from './fields/TextField.vue'

/** A field in which a home is named by its address or number; what is found is taken by a press or by Enter. */
const props = defineProps<{ label: string; id: string; unlisted?: boolean }>()
const emit = defineEmits<{ take: [hit: Hit]; typed: [] }>()
const text = defineModel<string>({ required: true })
const at = ref(0)
const { hits, nearest, nothing } = useLookup(text)
const homes = computed(() =>
  (hits.value.length ? hits.value : nearest.value).filter((h) => h.kind === 'parcel' || h.kind === 'listing'),
)
function typed() {
  at.value = 0
  emit('typed')
}
function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') at.value = Math.min(at.value + 1, homes.value.length - 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(at.value - 1, 0)
  else if (event.key === 'Enter' && homes.value[at.value]) emit('take', homes.value[at.value]!)
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
    @input="typed"
    @keydown="key"
  />
  <LookupList
    v-if="!unlisted && text.trim().length > 1"
    :id="id"
    plain
    :hits="homes"
    :nearest="[]"
    :nothing="nothing && !homes.length"
    :at="at"
    :text="text"
    @open="emit('take', $event)"
  />
</template>

<style scoped>
.named {
  width: 100%;
}
</style>
