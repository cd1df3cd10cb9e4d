<script setup lang="ts">
/** The desk of a folder in which nothing is yet: what to do first, and a place to drop a file on. */
import FilePick from '@/shared/ui/FilePick.vue'
import { useSession } from '@/session/useSession'

defineProps<{ sending: string; fault: string; over: boolean }>()
const emit = defineEmits<{ bring: [files: File[]] }>()
const { mayImport } = useSession()
</script>

<template>
  <section class="mt-8" aria-label="First of all">
    <h2>First of all: your listings</h2>
    <p v-if="!mayImport" class="mt-2">
      There are no records yet. Your account does not bring files in: ask the office’s manager for a first
      file of listings.
    </p>
    <template v-else>
      <FilePick
        class="drop"
        :class="{ over }"
        area
        several
        name="Bring in a first file"
        accept=".csv,.tsv,.tab,.txt,.dat,.json,.geojson,.xlsx,.xlsm,.xls,.ods,.gz,.zip,.gpkg,.kml,.kmz"
        @all="(files) => emit('bring', files)"
      >
        <b>{{ sending ? `Sending ${sending} …` : 'Drop a file here, or choose one' }}</b>
        <span class="quiet small">
          an export of closed and current listings, as a table, a workbook or a ZIP; five years of them serve
          best
        </span>
      </FilePick>
      <p v-if="fault" class="lamp mt-2" role="alert">{{ fault }}</p>
      <ol class="quiet">
        <li>You see how each column was understood, and say what was not.</li>
        <li>You see what would change, and take it in. Nothing is lost: every import can be taken back.</li>
        <li>You type an address here, and price your first home. Tax rolls, deeds and photos may follow.</li>
      </ol>
      <p class="quiet small">
        No file at hand? <code>rain-porch demo</code> opens an invented town with three workups begun.
      </p>
    </template>
  </section>
</template>

<style scoped>
.drop {
  display: grid;
  gap: 4px;
  justify-items: center;
  margin-top: 12px;
  padding: 34px 20px;
  border: 1.5px dashed rgb(var(--v-theme-rain));
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
  cursor: pointer;
}
.drop b {
  color: rgb(var(--v-theme-rain));
  font-size: var(--text-l);
}
.drop.over,
.drop:focus-within {
  border-style: solid;
  background: rgba(var(--v-theme-rain), 0.08);
}
ol {
  margin: 16px 0 12px;
  padding-left: 20px;
  display: grid;
  gap: 4px;
}
</style>
