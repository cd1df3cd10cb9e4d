<script setup lang="ts">
import PressArea from './PressArea.vue'
import { mdiClipboardTextOutline, mdiHomeOutline, mdiMapMarkerOutline } from '@mdi/js'
import { nextTick, watch } from 'vue'
import type { Hit } from '@/shared/useLookup'

const props = defineProps<{
  id: string
  hits: Hit[]
  nearest: Hit[]
  nothing: boolean
  at: number
  text: string
  plain?: boolean
}>()
defineEmits<{ open: [hit: Hit]; around: [hit: Hit] }>()
const ICONS = {
  workup: mdiClipboardTextOutline,
  parcel: mdiHomeOutline,
  listing: mdiHomeOutline,
  area: mdiMapMarkerOutline,
}
watch(
  () => props.at,
  async (at) => {
    await nextTick()
    document.getElementById(`${props.id}-${at}`)?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <div
    v-if="hits.length || nothing"
    :id="id"
    class="list sheet"
    role="listbox"
    aria-label="Homes and workups found"
    @mousedown.prevent
  >
    <p v-if="nothing" class="none">
      No home has the address “{{ text.trim() }}”.
      <template v-if="nearest.length">The nearest are{{ at < 0 ? ', ↓ chooses one' : '' }}:</template>
      <template v-else>Try part of it, a parcel number or a listing number.</template>
    </p>
    <PressArea
      v-for="(hit, i) in hits.length ? hits : nearest"
      :id="`${id}-${i}`"
      :key="hit.kind + hit.key"
      role="option"
      class="hit"
      :class="{ at: i === at }"
      :aria-selected="i === at"
      @mousedown.prevent="$emit('open', hit)"
    >
      <v-icon :icon="ICONS[hit.kind]" size="17" class="quiet" />
      <span class="shown">{{ hit.shown }}</span>
      <span
        v-if="hit.kind !== 'workup' && !plain"
        class="link small"
        :title="
          hit.kind === 'area'
            ? 'Homes in it, by a search (Shift and Enter)'
            : 'What sold around here, nothing kept (Shift and Enter)'
        "
        @mousedown.stop.prevent="$emit('around', hit)"
        >{{ hit.kind === 'area' ? 'homes in it' : 'around' }}</span
      >
      <span class="quiet small">{{
        hit.note || (hit.kind === 'parcel' ? `parcel ${hit.key}` : hit.key)
      }}</span>
    </PressArea>
  </div>
</template>

<style scoped>
.list {
  max-height: 420px;
  overflow: auto;
  box-shadow: 0 8px 26px rgba(20, 40, 50, 0.16);
  padding: 4px;
}
.none {
  padding: 8px 10px 4px;
}
.hit {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  text-align: left;
  padding: 7px 10px;
  border-radius: var(--corner);
  cursor: pointer;
}
.hit.at,
.hit:hover {
  background: rgb(var(--v-theme-mist));
}
.shown {
  flex: 1;
}
</style>
