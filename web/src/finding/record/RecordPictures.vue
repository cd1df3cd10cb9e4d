<script setup lang="ts">
import { served } from '@/shared/servicePath'
import IconButton from '@/shared/ui/IconButton.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { ref, watch } from 'vue'
import { useKeys } from '@/shared/keys/keys'

/** The pictures of a listing, one large, turned by ← and →; `captions` says what each shows. */
const props = defineProps<{ listing: string; captions: string[] }>()
const at = ref(1)
watch(
  () => props.listing,
  () => (at.value = 1),
)
const src = (n: number) => served(`/api/listings/${encodeURIComponent(props.listing)}/pictures/${n}`)
function turn(by: number) {
  const n = props.captions.length
  if (n) at.value = ((at.value - 1 + by + n) % n) + 1
}
useKeys((event) => {
  if (event.key === 'ArrowRight') turn(1)
  else if (event.key === 'ArrowLeft') turn(-1)
  else return
  event.preventDefault()
  event.stopPropagation()
}, true)
</script>

<template>
  <p v-if="!captions.length" class="quiet none">There are no pictures of this home.</p>
  <template v-else>
    <img class="large" :src="src(at)" :alt="captions[at - 1]" />
    <div class="turn">
      <IconButton :icon="mdiChevronLeft" size="small" name="Picture before" @click="turn(-1)" />
      <span>{{ captions[at - 1] }} · {{ at }} of {{ captions.length }}</span>
      <IconButton :icon="mdiChevronRight" size="small" name="Next picture" @click="turn(1)" />
    </div>
    <div class="small-ones">
      <PressArea
        v-for="(caption, i) in captions"
        :key="i"
        :class="{ at: i + 1 === at }"
        :title="caption"
        @click="at = i + 1"
      >
        <img :src="src(i + 1)" :alt="caption" />
      </PressArea>
    </div>
  </template>
</template>

<style scoped>
.none {
  padding: 60px 0;
  text-align: center;
}
.large {
  width: 100%;
  max-height: 246px;
  object-fit: cover;
  display: block;
  border-radius: var(--corner);
}
.turn {
  display: flex;
  justify-content: center;
  align-items: center;
  gap: 8px;
}
.small-ones {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.small-ones button {
  width: 84px;
  cursor: pointer;
  border: 2px solid transparent;
  border-radius: var(--corner);
  overflow: hidden;
}
.small-ones .at {
  border-color: rgb(var(--v-theme-slate));
}
.small-ones img {
  width: 100%;
  display: block;
}
</style>
