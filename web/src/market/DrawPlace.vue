<script setup lang="ts">
import { later } from '@/shared/useReaching'
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import type { DrawnShape, Tool } from '@/shared/map/mapShapes'
import MapTools from '@/shared/map/MapTools.vue'

/** A place for a view, drawn on the map. */
const emit = defineEmits<{ take: [shapes: DrawnShape[], drawn: string]; close: [] }>()
const HomeMap = later(() => import('@/shared/map/HomeMap.vue'))
const middle = useQuery({ queryKey: ['map-middle'], queryFn: () => got(api.GET('/api/map/middle')) })
const tool = ref<Tool | null>('area')
const shapes = ref<DrawnShape[]>([])
const client = useQueryClient()
const name = ref('')
const fault = ref('')
const kept = useQuery({ queryKey: ['outlines'], queryFn: () => got(api.GET('/api/outlines')) })
const own = computed(() => (kept.data.value ?? []).filter((o) => o.outline_id !== null))
const gone = ref<Docs['KeptOutlineDoc'] | null>(null)
/** What changes the kept outlines, with the list read anew after it. */
async function tried(act: () => Promise<unknown>): Promise<boolean> {
  fault.value = ''
  try {
    await act()
    return true
  } catch (error) {
    fault.value = (error as Told).message
    return false
  } finally {
    await client.invalidateQueries({ queryKey: ['outlines'] })
  }
}
const keep = (o: { name: string; shapes: DrawnShape[] }) =>
  got(api.POST('/api/outlines', { body: { name: o.name, shapes: o.shapes } }))
async function drop(o: Docs['KeptOutlineDoc']) {
  const path = { outline_id: o.outline_id! }
  if (await tried(() => got(api.DELETE('/api/outlines/{outline_id}', { params: { path } })))) gone.value = o
}
async function bringBack() {
  const o = gone.value
  if (o && (await tried(() => keep(o)))) gone.value = null
}
/** With a name it is kept, and is found by typing it from now on. */
async function take() {
  const called = name.value.trim()
  if (called && !(await tried(() => keep({ name: called, shapes: shapes.value })))) return
  emit('take', shapes.value, called ? `in ${called}` : '')
}
function draw(shape: DrawnShape) {
  shapes.value = [...shapes.value, shape]
  tool.value = null
}
</script>

<template>
  <DialogBox title="Draw the place" :width="960" @close="emit('close')">
    <template #acts>
      <LinkButton @click="shapes = []">start again</LinkButton>
      <TextField
        v-model="name"
        class="name"
        aria-label="Name of the place"
        placeholder="A name of its own, to keep it"
        maxlength="90"
        @keydown.enter.prevent="shapes.length && take()"
      />
      <ActButton :disabled="!shapes.length" @click="take"> Look inside it </ActButton>
    </template>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    <p v-if="gone" class="small" role="status">
      “{{ gone.name }}” is deleted.
      <LinkButton @click="bringBack">Bring it back</LinkButton>
    </p>
    <p v-if="own.length" class="own small">
      Kept, and found by typing its name:
      <span v-for="o in own" :key="o.outline_id!">
        {{ o.name }}
        <PressArea :aria-label="`Delete ${o.name}`" :title="`Delete ${o.name}`" @click="drop(o)">
          ×
        </PressArea>
      </span>
    </p>
    <div class="draw" @keydown.esc.stop="tool ? (tool = null) : emit('close')">
      <div class="map">
        <HomeMap
          v-if="middle.data.value"
          :subject="middle.data.value"
          :candidates="[]"
          :zoom="13"
          :shapes="shapes"
          :tool="tool"
          unnamed
          @drawn="draw"
          @moved="(i, s) => (shapes = shapes.map((x, k) => (k === i ? s : x)))"
        />
        <MapTools v-model="tool" no-fences />
      </div>
    </div>
  </DialogBox>
</template>

<style scoped>
.draw {
  height: min(560px, 74vh);
  display: grid;
}
.name {
  width: 230px;
}
.own {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-bottom: 6px;
}
.map {
  position: relative;
}
</style>
