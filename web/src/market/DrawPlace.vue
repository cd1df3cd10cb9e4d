<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { defineAsyncComponent, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import type { DrawnShape, Tool } from '@/shared/mapShapes'
import MapTools from '@/shared/MapTools.vue'

/** A place for a view, drawn on the map. */
const emit = defineEmits<{ take: [shapes: DrawnShape[]]; close: [] }>()
const HomeMap = defineAsyncComponent(() => import('@/shared/HomeMap.vue'))
const middle = useQuery({ queryKey: ['map-middle'], queryFn: () => got(api.GET('/api/map/middle')) })
const tool = ref<Tool | null>('area')
const shapes = ref<DrawnShape[]>([])
function draw(shape: DrawnShape) {
  shapes.value = [...shapes.value, shape]
  tool.value = null
}
</script>

<template>
  <DialogBox title="Draw the place" :width="960" @close="emit('close')">
    <template #acts>
      <LinkButton @click="shapes = []">start again</LinkButton>
      <ActButton :disabled="!shapes.length" @click="emit('take', shapes)"> Look inside it </ActButton>
    </template>
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
.map {
  position: relative;
}
</style>
