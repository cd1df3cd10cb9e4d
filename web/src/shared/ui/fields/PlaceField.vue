<script setup lang="ts">
import PressArea from '../PressArea.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { api, got } from '@/shared/api/client'
import { asTyped } from '@/shared/typed'

/**
 * A place of the records, by typing part of its name: what fits is listed, Enter takes the first, arrows another. A star
 * stands for any letters. What is no place stays in the field with a sentence beside it.
 */
const props = defineProps<{
  value?: string
  placeholder?: string
  label: string
  keeps?: boolean
  /** Further places that are no names of the records, such as outlines of the agent's own. */
  further?: { name: string; kind: string }[]
}>()
const emit = defineEmits<{ place: [name: string]; further: [name: string] }>()
const areas = useQuery({
  queryKey: ['areas'],
  queryFn: () => got(api.GET('/api/areas')),
  staleTime: Infinity,
})
const text = ref(props.value ?? '')
const typing = ref(false)
const at = ref(0)
const fault = ref('')
const list = ref<HTMLElement>()
const id = `places-${Math.random().toString(36).slice(2, 8)}`
watch(
  () => props.value,
  (now) => (text.value = now ?? ''),
)
const fits = computed(() => {
  const wanted = asTyped(text.value)
  const own = (props.further ?? []).map((f) => ({ ...f, key: `further:${f.name}`, own: true }))
  const named = (areas.data.value ?? []).map((a) => ({
    name: a.name!,
    kind: a.kind ?? '',
    key: a.area_key ?? a.name!,
    own: false,
  }))
  const all = [...own, ...named]
  const holds = all.filter((a) => asTyped(a.name).includes(wanted))
  const starts = (name: string) => asTyped(name).startsWith(wanted)
  return [...holds.filter((a) => starts(a.name)), ...holds.filter((a) => !starts(a.name))].slice(0, 8)
})
watch(fits, () => (at.value = 0))
function take(name: string, own = false) {
  fault.value = ''
  typing.value = false
  if (own) {
    text.value = props.value ?? ''
    emit('further', name)
    return
  }
  text.value = props.keeps === false ? '' : name
  if (name !== (props.value ?? '')) emit('place', name)
}
function entered() {
  const wanted = text.value.trim()
  const first = fits.value[at.value]
  if (!wanted || wanted.includes('*')) take(wanted)
  else if (first) take(first.name, first.own)
  else
    fault.value = `No place of the records is called “${wanted}”: type part of its name, or * for any letters.`
}
function left() {
  typing.value = false
  if (text.value.trim() !== (props.value ?? '')) entered()
}
async function key(event: KeyboardEvent) {
  if (event.key === 'Enter') entered()
  else if (event.key === 'Escape' && typing.value) {
    typing.value = false
    text.value = props.value ?? ''
    fault.value = ''
  } else if (event.key === 'ArrowDown') at.value = Math.min(at.value + 1, fits.value.length - 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(at.value - 1, 0)
  else return
  event.preventDefault()
  event.stopPropagation()
  await nextTick()
  list.value?.querySelector('.at')?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <span class="place">
    <input
      v-model="text"
      role="combobox"
      autocomplete="off"
      spellcheck="false"
      aria-autocomplete="list"
      :aria-label="label"
      :aria-expanded="typing && fits.length > 0"
      :aria-controls="id"
      :aria-invalid="!!fault"
      :placeholder="placeholder"
      :title="
        fault || 'Part of the name of an area, subdivision, building, city or postal code; * for any letters'
      "
      @input="((typing = true), (fault = ''))"
      @focus="($event.target as HTMLInputElement).select()"
      @blur="left"
      @keydown="key"
    />
    <span v-if="typing && fits.length" :id="id" ref="list" class="sheet fits small" role="listbox">
      <PressArea
        v-for="(a, i) in fits"
        :key="a.key"
        role="option"
        tabindex="-1"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @mousedown.prevent="take(a.name, a.own)"
      >
        <span>{{ a.name }}</span> <span class="quiet">{{ a.kind }}</span>
      </PressArea>
    </span>
    <span v-if="fault" class="clay small fault" role="alert">{{ fault }}</span>
  </span>
</template>

<style scoped>
.place {
  position: relative;
  display: inline-block;
}
.fits {
  position: absolute;
  left: 0;
  top: calc(100% + 3px);
  z-index: 30;
  min-width: 240px;
  padding: 4px;
  line-height: 1.4;
  box-shadow: 0 8px 22px rgba(20, 40, 50, 0.18);
}
.fits button {
  display: flex;
  justify-content: space-between;
  gap: 18px;
  width: 100%;
  padding: 4px 8px;
  border-radius: var(--corner);
  text-align: left;
  white-space: nowrap;
  font-weight: 400;
  cursor: pointer;
}
.fits .at,
.fits button:hover {
  background: rgb(var(--v-theme-mist));
}
.fault {
  display: block;
  max-width: 320px;
  white-space: normal;
  line-height: 1.35;
}
</style>
