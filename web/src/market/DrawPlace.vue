<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { defineAsyncComponent, ref } from 'vue'
import { api, got, type Told } from '@/shared/api/client'
import type { DrawnShape, Tool } from '@/shared/mapShapes'
import MapTools from '@/shared/MapTools.vue'

/** A place for a view, drawn on the map. */
const emit = defineEmits<{ take: [shapes: DrawnShape[], drawn: string]; close: [] }>()
const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const middle = useQuery({ queryKey: ['map-middle'], queryFn: () => got(api.GET('/api/map/middle')) })
const tool = ref<Tool | null>('area')
const shapes = ref<DrawnShape[]>([])
const client = useQueryClient()
const name = ref('')
const fault = ref('')
/** With a name it is kept, and is found by typing it from now on. */
async function take() {
  const own = name.value.trim()
  fault.value = ''
  try {
    if (own) {
      await got(api.POST('/api/outlines', { body: { name: own, shapes: shapes.value } }))
      await client.invalidateQueries({ queryKey: ['outlines'] })
    }
    emit('take', shapes.value, own ? `in ${own}` : '')
  } catch (error) {
    fault.value = (error as Told).message
  }
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
        @keydown.enter="shapes.length && take()"
      />
      <ActButton :disabled="!shapes.length" @click="take"> Look inside it </ActButton>
    </template>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
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
.map {
  position: relative;
}
</style>
