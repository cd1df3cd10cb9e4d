<script setup lang="ts">
import { ref } from 'vue'
import PartEditor from './PartEditor.vue'
import type { SearchTools } from './useSearch'

defineProps<{ search: SearchTools }>()
const opened = ref<string | null>(null)

const FIXED = ['home_kinds', 'windows.now', 'areas']
function opens(part: string | null): part is string {
  return part !== null && !FIXED.includes(part)
}
</script>

<template>
  <p class="sentence">
    <template v-for="(phrase, i) in search.phrases.value" :key="phrase.part ?? i">
      <v-menu
        v-if="opens(phrase.part)"
        :model-value="opened === phrase.part"
        :close-on-content-click="false"
        location="bottom start"
        offset="6"
        @update:model-value="opened = $event ? phrase.part : null"
      >
        <template #activator="{ props: activator }">
          <button v-bind="activator" type="button" class="part">{{ phrase.text }}</button>
        </template>
        <PartEditor
          v-if="opened === phrase.part"
          :part="phrase.part"
          :search="search"
          @close="opened = null"
        />
      </v-menu>
      <span v-else>{{ phrase.text }}</span>
    </template>
  </p>
</template>

<style scoped>
.sentence {
  font-size: 17px;
  line-height: 1.5;
}
.part {
  font-weight: 600;
  text-decoration: underline;
  text-decoration-color: rgb(var(--v-theme-rain));
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
  cursor: pointer;
}
.part:hover {
  color: rgb(var(--v-theme-rain));
}
</style>
