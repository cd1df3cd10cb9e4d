<script setup lang="ts">
/** The desk of a folder in which nothing is yet: what to do first, and a place to drop a file on. */
import BringFile from '@/records/BringFile.vue'
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
      <BringFile
        class="mt-3"
        large
        name="Bring in a first file"
        title="Drop a file here, or choose one"
        words="an export of closed and current listings, as a table, a workbook or a ZIP; five years of them serve best"
        :sending="sending"
        :over="over"
        @bring="(files) => emit('bring', files)"
      />
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
ol {
  margin: 16px 0 12px;
  padding-left: 20px;
  display: grid;
  gap: 4px;
}
</style>
