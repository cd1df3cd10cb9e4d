<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import Mark from './Mark.vue'
import { isTyping } from '../keys/keys'
import { houseSvg, KIND_WORDS } from './marks'
import { useLight } from '../style/useTheme'

const open = ref(false)
const { tokens } = useLight()
function key(event: KeyboardEvent) {
  if (isTyping(event)) return
  if (event.key.toLowerCase() === 'l' && !event.ctrlKey && !event.metaKey) open.value = !open.value
  if (event.key === 'Escape') open.value = false
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <aside v-if="open" class="legend sheet" aria-label="Legend">
    <h2>The marks</h2>
    <!-- eslint-disable-next-line vue/no-v-html -- our own drawing -->
    <p><span class="house" v-html="houseSvg(tokens)" /> the home that is priced</p>
    <p v-for="(words, kind) in KIND_WORDS" :key="kind"><Mark :kind="kind" /> {{ words }}</p>
    <p><Mark kind="sold" choice="kept" /> kept or ticked: larger, with a ring</p>
    <p><Mark kind="sold" choice="set_aside" /> set aside: small and grey</p>
    <p class="quiet small">Press L to close.</p>
  </aside>
</template>

<style scoped>
.legend {
  position: fixed;
  right: 18px;
  top: 64px;
  z-index: 30;
  padding: 14px 18px;
  box-shadow: 0 10px 30px rgba(20, 40, 50, 0.18);
}
.legend p {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 6px;
}
.house {
  width: 24px;
  display: inline-grid;
  place-items: center;
}
</style>
