<script setup lang="ts">
import { computed, ref } from 'vue'
import AddCriterion from './AddCriterion.vue'
import PartEditor from './PartEditor.vue'
import type { SearchTools } from './useSearch'

const props = defineProps<{ search: SearchTools }>()
const opened = ref<string | null>(null)

const fault = computed(() => props.search.found.value?.fault)
const adding = ref(false)
const adder = ref<HTMLElement>()
/** A part that is not in the sentence yet opens beside the button that added it. */
const fresh = ref<string | null>(null)
const opens = (part: string | null): part is string => part !== null
function added(part: string) {
  adding.value = false
  if (props.search.phrases.value.some((p) => p.part === part)) opened.value = part
  else fresh.value = part
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
          <button
            v-bind="activator"
            type="button"
            class="part"
            :class="{ faulty: fault?.part === phrase.part }"
            :title="fault?.part === phrase.part ? fault.message : undefined"
          >
            {{ phrase.text }}
          </button>
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
    {{ ' ' }}
    <span v-if="fault" class="clay small" role="alert">{{ fault.message }}</span>
    <!-- opened by our own press: one that follows an Escape at once must not be lost -->
    <button
      ref="adder"
      type="button"
      class="link add"
      aria-haspopup="menu"
      :aria-expanded="adding || fresh !== null"
      @click="adding = true"
    >
      + criterion
    </button>
    <v-menu
      :activator="adder"
      :open-on-click="false"
      :model-value="adding || fresh !== null"
      :close-on-content-click="false"
      location="bottom start"
      offset="6"
      @update:model-value="$event ? (adding = true) : ((adding = false), (fresh = null))"
    >
      <PartEditor v-if="fresh" :part="fresh" :search="search" @close="fresh = null" />
      <AddCriterion v-else-if="adding" :search="search" @added="added" @close="adding = false" />
    </v-menu>
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
.faulty {
  text-decoration-color: rgb(var(--v-theme-clay));
  text-decoration-style: wavy;
}
.add {
  font-size: 14px;
  margin-left: 6px;
}
.part:hover {
  color: rgb(var(--v-theme-rain));
}
</style>
