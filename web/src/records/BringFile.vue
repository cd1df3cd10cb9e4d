<script setup lang="ts">
/** The place where files are dropped or chosen: on an empty desk, and in the room of records. */
import FilePick from '@/shared/ui/FilePick.vue'

defineProps<{ name: string; title: string; words: string; sending: string; over: boolean; large?: boolean }>()
const emit = defineEmits<{ bring: [files: File[]] }>()
const ACCEPT = '.csv,.tsv,.tab,.txt,.dat,.json,.geojson,.xlsx,.xlsm,.xls,.ods,.gz,.zip,.gpkg,.kml,.kmz'
</script>

<template>
  <FilePick
    class="drop"
    :class="{ over, large }"
    area
    several
    :name="name"
    :accept="ACCEPT"
    @all="(files) => emit('bring', files)"
  >
    <b>{{ sending ? `Sending ${sending} …` : title }}</b>
    <span class="quiet small">{{ words }}</span>
  </FilePick>
</template>

<style scoped>
.drop {
  display: grid;
  gap: 2px;
  padding: 10px 20px;
  border: 1.5px dashed rgb(var(--v-theme-rain));
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
  cursor: pointer;
}
.large {
  gap: 4px;
  justify-items: center;
  padding: 34px 20px;
}
.drop b {
  color: rgb(var(--v-theme-rain));
}
.large b {
  font-size: var(--text-l);
}
.over,
.drop:focus-within {
  border-style: solid;
  background: rgba(var(--v-theme-rain), 0.08);
}
</style>
