<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import { computed, ref, watch } from 'vue'
import AddCriterion from './AddCriterion.vue'
import PartEditor from './PartEditor.vue'
import SentencePart from './SentencePart.vue'
import type { SearchTools } from './useSearch'

const props = defineProps<{ search: SearchTools }>()
const opened = ref<string | null>(null)

const fault = computed(() => props.search.found.value?.fault)
const adding = ref(false)
const adder = ref<HTMLElement>()
/** A part that is not in the sentence yet opens beside the button that added it. */
const fresh = ref<string | null>(null)
/** The sentence in runs: a sign after a part stands with it, so that no line begins with one. */
const runs = computed(() => {
  const all = props.search.phrases.value
  const sign = /^[,;.]/
  return all.map((phrase, i) => ({
    part: phrase.part,
    text: phrase.part === null && i ? phrase.text.replace(sign, '') : phrase.text,
    sign: phrase.part === null ? '' : (sign.exec(all[i + 1]?.text ?? '')?.[0] ?? ''),
  }))
})
/** What has left the sentence is open no more: where an undo brings it back, it does not open by itself. */
watch(
  () => props.search.phrases.value.some((p) => p.part === opened.value),
  (isThere) => {
    if (!isThere) opened.value = null
  },
)
function added(part: string) {
  adding.value = false
  if (props.search.phrases.value.some((p) => p.part === part)) opened.value = part
  else fresh.value = part
}
</script>

<template>
  <p class="sentence">
    <template v-for="({ part, text, sign }, i) in runs" :key="part ?? i">
      <span v-if="part !== null" class="run">
        <SentencePart
          :text="text"
          :part="part"
          :fault="fault?.part === part ? fault.message : undefined"
          :search="search"
          :model-value="opened === part"
          @update:model-value="opened = $event ? part : null"
        />{{ sign }}
      </span>
      <span v-else>{{ text }}</span>
    </template>
    {{ ' ' }}
    <span v-if="fault" class="clay small" role="alert">{{ fault.message }}</span>
    <!-- opened by our own press: one that follows an Escape at once must not be lost -->
    <LinkButton
      ref="adder"
      class="add"
      aria-haspopup="menu"
      :aria-expanded="adding || fresh !== null"
      @click="adding = true"
    >
      + criterion
    </LinkButton>
    <MenuBox
      :activator="adder"
      :model-value="adding || fresh !== null"
      location="bottom start"
      @update:model-value="$event ? (adding = true) : ((adding = false), (fresh = null))"
    >
      <PartEditor v-if="fresh" :part="fresh" :search="search" @close="fresh = null" />
      <AddCriterion v-else-if="adding" :search="search" @added="added" @close="adding = false" />
    </MenuBox>
  </p>
</template>

<style scoped>
.sentence {
  font-size: var(--title-s);
  line-height: 1.5;
}
.run {
  white-space: nowrap;
}
.run > :deep(*) {
  white-space: normal;
}
.add {
  font-size: var(--text);
  margin-left: 6px;
}
</style>
