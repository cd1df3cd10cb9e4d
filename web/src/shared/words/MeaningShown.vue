<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { api, got } from '@/shared/api/client'
import { explained, ID, leave } from './vWord'

/** The meaning of the word under the pointer, or at the focus: gone with the pointer, the next key, a scroll. */
const meanings = useQuery({
  queryKey: ['meanings'],
  queryFn: () => got(api.GET('/api/meanings')),
  enabled: computed(() => !!explained.value),
  staleTime: Infinity,
})
const meaning = computed(() => (explained.value ? meanings.data.value?.[explained.value.name] : undefined))
const says = computed(() => {
  const parts = [meaning.value?.says, explained.value?.more].filter((part): part is string => !!part)
  return parts.map((part) => `${part[0]!.toUpperCase()}${part.slice(1)}.`).join(' ')
})
const box = ref<HTMLElement>()
const place = ref({ left: '0px', top: '0px' })
watch([explained, says], async ([now], [before]) => {
  before?.on.removeAttribute('aria-describedby')
  if (!now || !says.value) return
  now.on.setAttribute('aria-describedby', ID)
  await nextTick()
  const under = now.on.getBoundingClientRect()
  const { offsetWidth: width, offsetHeight: height } = box.value ?? { offsetWidth: 0, offsetHeight: 0 }
  const below = under.bottom + 6 + height < window.innerHeight
  place.value = {
    left: `${Math.max(8, Math.min(under.left, window.innerWidth - width - 8))}px`,
    top: `${below ? under.bottom + 6 : Math.max(8, under.top - height - 6)}px`,
  }
})
window.addEventListener('scroll', leave, true)
window.addEventListener('keydown', leave, true)
</script>

<template>
  <div v-if="explained && says" :id="ID" ref="box" role="tooltip" class="meaning raised" :style="place">
    <b v-if="meaning">{{ meaning.word }}</b>
    {{ says }}
  </div>
</template>

<style scoped>
.meaning {
  position: fixed;
  z-index: 2600;
  max-width: 320px;
  padding: 8px 12px;
  font-size: var(--text-s);
  line-height: 1.4;
  pointer-events: none;
  color: rgb(var(--v-theme-on-surface));
  background: rgb(var(--v-theme-surface));
  border: var(--line);
  border-radius: var(--corner);
}
b {
  display: block;
}
</style>
