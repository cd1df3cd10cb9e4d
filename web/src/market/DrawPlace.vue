<script setup lang="ts">
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
  <v-dialog :model-value="true" max-width="960" aria-label="Draw a place" @update:model-value="emit('close')">
    <div class="sheet draw" @keydown.esc.stop="tool ? (tool = null) : emit('close')">
      <header>
        <h2>Draw the place</h2>
        <button type="button" class="link" @click="shapes = []">start again</button>
        <button type="button" class="do" :disabled="!shapes.length" @click="emit('take', shapes)">
          Look inside it
        </button>
      </header>
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
  </v-dialog>
</template>

<style scoped>
.draw {
  color: rgb(var(--v-theme-slate));
  height: min(620px, 86vh);
  padding: 14px 18px;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 10px;
}
header {
  display: flex;
  align-items: center;
  gap: 18px;
}
header h2 {
  margin-right: auto;
}
.map {
  position: relative;
}
</style>
