<script setup lang="ts">
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { computed } from 'vue'
import { ADDRESS, type MapLayer } from './mapLayer'

/** From where one layer of the map comes. none: what stands there without one. */
defineProps<{ label: string; none: string; files: string[] }>()
const layer = defineModel<MapLayer>({ required: true })
const isAddress = computed(() => layer.value.from === ADDRESS)
</script>

<template>
  <div class="layer framed">
    <label>
      {{ label }}
      <ChoiceField v-model="layer.from" :aria-label="`${label}: from where`">
        <option value="">{{ none }}</option>
        <option :value="ADDRESS">an address</option>
        <option v-for="f in files" :key="f" :value="f">{{ f }}</option>
      </ChoiceField>
    </label>
    <TextField
      v-if="isAddress"
      v-model="layer.address"
      class="address"
      maxlength="500"
      :aria-label="`${label}: address of the tiles`"
      placeholder="https://tiles.place.example/{z}/{x}/{y}.png"
    />
    <ChoiceField v-if="isAddress" v-model="layer.form" :aria-label="`${label}: form of the tiles`">
      <option value="raster">pictures</option>
      <option value="vector">vector tiles</option>
    </ChoiceField>
    <TextField
      v-if="layer.from"
      v-model="layer.attribution"
      maxlength="200"
      :aria-label="`${label}: by whom the map is`"
      placeholder="by whom the map is"
    />
  </div>
</template>

<style scoped>
.layer {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 6px 0;
}
.layer label {
  min-width: 320px;
  display: grid;
  grid-template-columns: 100px 1fr;
  align-items: center;
}
.address {
  flex: 1;
  min-width: 300px;
}
</style>
