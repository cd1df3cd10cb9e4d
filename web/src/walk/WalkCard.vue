<script setup lang="ts">
/** One step of the walk: beside the page, which goes on working, with a ring around what it speaks of. */
import ActButton from '@/shared/ui/ActButton.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import { api, got } from '@/shared/api/client'
import { mdiClose } from '@mdi/js'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useWalk } from './useWalk'

const { at, step, count, go, leave } = useWalk()
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const card = ref<HTMLElement>()
const isLast = computed(() => at.value === count - 1)
const isHere = computed(() => route.name === step.value?.room)

/** To the room of the step: of the workup that is open, else of the newest. */
async function take() {
  const room = step.value?.room
  if (!room || isHere.value) return
  if (room === 'desk' || room === 'market') return void router.push({ name: room })
  let id = Number(route.params.id)
  if (!id) {
    const key = ['workups', [false, false, '']]
    const ask = () => got(api.GET('/api/workups', { params: { query: {} } }))
    const all = await queries.fetchQuery({ queryKey: key, queryFn: ask })
    id = all[0]?.workup_id ?? 0
  }
  await router.push(id ? { name: room, params: { id } } : { name: 'desk' })
}
async function move(by: number) {
  go(at.value + by)
  await nextTick()
  await take()
}

const ring = ref<{ left: string; top: string; width: string; height: string } | null>(null)
function look() {
  const found = isHere.value && step.value ? document.querySelector(step.value.at) : null
  const box = found?.getBoundingClientRect()
  ring.value =
    box && box.width
      ? {
          left: `${Math.max(2, box.left - 5)}px`,
          top: `${Math.max(2, box.top - 5)}px`,
          width: `${Math.min(box.width + 10, window.innerWidth - Math.max(2, box.left - 5) - 2)}px`,
          height: `${Math.min(box.height + 10, window.innerHeight - Math.max(2, box.top - 5) - 2)}px`,
        }
      : null
}
const timer = setInterval(look, 400)
function point() {
  const found = isHere.value && step.value ? document.querySelector(step.value.at) : null
  found?.scrollIntoView({ block: 'nearest' })
  look()
}
watch([at, () => route.name], () => setTimeout(point, 600), { immediate: true })
onBeforeUnmount(() => clearInterval(timer))
watch(card, (shown) => shown?.focus())
</script>

<template>
  <div v-if="ring" class="ring" :style="ring" aria-hidden="true" />
  <aside
    ref="card"
    class="sheet card"
    aria-label="The job in nine steps"
    tabindex="-1"
    @keydown.esc.stop="leave()"
  >
    <header>
      <span class="quiet small">Step {{ at + 1 }} of {{ count }}</span>
      <IconButton :icon="mdiClose" name="Leave the walk" @click="leave()" />
    </header>
    <h2 aria-live="polite">{{ step?.title }}</h2>
    <p class="mt-1">{{ step?.words }}</p>
    <footer>
      <ActButton v-if="at > 0" plain @click="move(-1)">Back</ActButton>
      <ActButton v-if="!isHere" plain @click="take">Take me there</ActButton>
      <ActButton v-if="isLast" @click="leave(true)">Done</ActButton>
      <ActButton v-else @click="move(1)">Next</ActButton>
    </footer>
  </aside>
</template>

<style scoped>
.card {
  position: fixed;
  left: 88px;
  bottom: 112px;
  z-index: 40;
  width: min(300px, calc(100vw - 40px));
  padding: 12px 16px 14px;
  box-shadow: 0 10px 30px rgba(20, 40, 50, 0.22);
}
header,
footer {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
footer {
  margin-top: 12px;
  justify-content: flex-end;
}
@media (max-width: 620px) {
  .card {
    left: 20px;
    bottom: 70px;
  }
}
.ring {
  position: fixed;
  z-index: 39;
  border: 2px solid rgb(var(--v-theme-cedar));
  border-radius: var(--corner-l);
  pointer-events: none;
}
</style>
