<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { computed, ref } from 'vue'
import NewCondition from './NewCondition.vue'
import { useConditions } from './useConditions'
import type { ViewTools } from './useView'

/** What is added to the sentence: conditions on any field, smoothing, years laid over each other, an outside series. */
const props = defineProps<{ tools: ViewTools }>()
const { view, lists, set } = props.tools
const { asked, groups: groupsOf } = useConditions()
const adding = ref(false)
/** A condition is taken away by what it was made of: "between" is made of two. */
const groups = computed(() => groupsOf(view.value.where ?? []))
const drop = (made: string[]) => set({ where: view.value.where!.filter((c) => !made.includes(c)) })
function add(made: string[]) {
  adding.value = false
  set({ where: [...new Set([...view.value.where!, ...made])] })
}
</script>

<template>
  <div class="options small">
    <span v-for="g in groups" :key="g.words" class="chip">
      {{ g.words }}
      <PressArea :aria-label="`Take away: ${g.words}`" :title="`Take away: ${g.words}`" @click="drop(g.made)">
        ×
      </PressArea>
    </span>
    <NewCondition v-if="adding" :fields="asked" @add="add" @close="adding = false" />
    <LinkButton v-else @click="adding = true">+ condition</LinkButton>
    <label>
      smoothed over
      <ChoiceField
        :model-value="view.smooth"
        aria-label="Smoothing"
        @chosen="set({ smooth: Number($event) as 1 })"
      >
        <option :value="1">nothing</option>
        <option :value="3">3 periods</option>
        <option :value="12">12 periods</option>
      </ChoiceField>
    </label>
    <label v-if="view.places!.length > 1" title="Its places as one market, not as lines beside each other">
      <CheckBox :model-value="view.together" @update:model-value="set({ together: $event, split: '' })" />
      places together
    </label>
    <label v-if="view.places!.length && !view.split" title="All of the records as a line of their own">
      <CheckBox :model-value="view.whole" @update:model-value="set({ whole: $event, overlay: false })" />
      beside the whole
    </label>
    <label :class="{ quiet: view.places!.length > 1 || view.split }">
      <CheckBox
        :model-value="view.overlay"
        :disabled="view.places!.length > 1 || !!view.split || view.by === 'year'"
        @update:model-value="set({ overlay: $event })"
      />
      years over each other
    </label>
    <label>
      over it
      <ChoiceField :model-value="view.series" aria-label="Outside series" @chosen="set({ series: $event })">
        <option value="">no outside series</option>
        <option v-for="s in lists.series.data.value ?? []" :key="s" :value="s">{{ s }}</option>
      </ChoiceField>
    </label>
    <label title="Sales known only from deed records">
      <CheckBox :model-value="view.deeds" @update:model-value="set({ deeds: $event })" />
      deed sales too
    </label>
  </div>
</template>

<style scoped>
.options {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
}
.options select {
  min-height: 24px;
}
.options select,
.adding input {
  field-sizing: content;
  color: inherit;
  background: rgb(var(--v-theme-mist));
  border-bottom: 1px solid rgb(var(--v-theme-rain));
  padding: 0 2px;
}
.adding {
  display: flex;
  gap: 6px;
}
.adding input {
  min-width: 90px;
}
.chip {
  padding: 1px 8px;
  border-radius: 10px;
  background: rgb(var(--v-theme-mist));
}
.chip button {
  cursor: pointer;
}
</style>
