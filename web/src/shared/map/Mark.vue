<script setup lang="ts">
import { computed, inject } from 'vue'
import { CHOSEN, KIND_WORDS, markSvg, type Choice } from './marks'
import { useLight } from '../style/useTheme'

const props = withDefaults(defineProps<{ kind: string; choice?: Choice; lit?: boolean }>(), {
  choice: 'undecided',
  lit: false,
})
const { tokens } = useLight()
const chosen = inject(CHOSEN, 'kept')
const svg = computed(() => markSvg(props.kind, props.choice, tokens.value, props.lit))
const words = computed(() => {
  const done = props.choice === 'undecided' ? '' : `, ${props.choice === 'kept' ? chosen : 'set aside'}`
  return (KIND_WORDS[props.kind] ?? props.kind) + done
})
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- our own drawing, no foreign text -->
  <span class="mark" role="img" :aria-label="words" :title="words" v-html="svg" />
</template>

<style scoped>
.mark {
  display: inline-flex;
  vertical-align: middle;
  width: 24px;
  height: 24px;
}
</style>
