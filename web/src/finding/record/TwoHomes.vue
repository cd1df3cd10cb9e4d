<script setup lang="ts">
import { served } from '@/shared/servicePath'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useKeys } from '@/shared/keys/keys'
import { api, got } from '@/shared/api/client'
import { priced, day } from '@/shared/format'
import { useFinding, type Candidate } from '../useFinding'

/** The subject's pictures and another home's beside each other, large: turned together, so that kitchen stands beside kitchen. */
const props = defineProps<{ right: Candidate; resting: boolean }>()
const emit = defineEmits<{ close: []; next: [by: number]; keep: []; aside: []; rate: [grade: number] }>()
const { home: of, choiceOf, way } = useFinding()
const at = ref(1)
const said = (home: Candidate) =>
  way === 'tick'
    ? choiceOf(home.listing_id) === 'kept'
      ? 'ticked'
      : 'not ticked'
    : choiceOf(home.listing_id).replace('_', ' ')
const leftKey = computed(() => /listings\/([^/]+)\//.exec(of.value?.picture ?? '')?.[1] ?? '')
const record = (key: () => string) =>
  useQuery({
    queryKey: ['listing', computed(key)],
    queryFn: () =>
      got(
        api.GET('/api/listings/{listing_id}', {
          params: { path: { listing_id: decodeURIComponent(key()) } },
        }),
      ),
    enabled: computed(() => key() !== '' && !key().startsWith('deed:')),
  })
const a = record(() => leftKey.value)
const b = record(() => props.right.listing_id)
const most = computed(() =>
  Math.max(a.data.value?.pictures.length ?? 0, b.data.value?.pictures.length ?? 0, 1),
)
const sides = computed(() =>
  [
    ...(of.value?.named ? [{ key: leftKey.value, pictures: a.data.value?.pictures ?? [], home: null }] : []),
    { key: props.right.listing_id, pictures: b.data.value?.pictures ?? [], home: props.right },
  ].map((s) => ({ ...s, shown: Math.min(at.value, s.pictures.length) })),
)
const src = (key: string, n: number) =>
  served(`/api/listings/${encodeURIComponent(decodeURIComponent(key))}/pictures/${n}`)
function key(event: KeyboardEvent) {
  if (props.resting) return // a question lies over it, and the keys are its own
  const pressed = event.key.toLowerCase()
  if (pressed === 'escape' || pressed === 'p') emit('close')
  else if (pressed === 'arrowright') at.value = (at.value % most.value) + 1
  else if (pressed === 'arrowleft') at.value = ((at.value - 2 + most.value) % most.value) + 1
  else if (pressed === 'arrowdown') emit('next', 1)
  else if (pressed === 'arrowup') emit('next', -1)
  else if (pressed === 'k' || (pressed === ' ' && way === 'tick')) emit('keep')
  else if (pressed === 'x') emit('aside')
  else if (/^[1-6]$/.test(pressed)) emit('rate', 7 - Number(pressed))
  else return
  event.preventDefault()
  event.stopPropagation()
}
useKeys(key, true)
</script>

<template>
  <div class="two" role="dialog" aria-label="Two homes’ pictures">
    <section v-for="(s, i) in sides" :key="i">
      <img v-if="s.shown" :src="src(s.key, s.shown)" :alt="s.pictures[s.shown - 1]" />
      <p v-else class="none quiet">no pictures</p>
      <p class="words">
        <span
          ><b :class="{ cedar: !s.home }">{{ s.home ? s.home.address || s.home.listing_id : of?.address }}</b>
          <span v-if="s.home" class="quiet about">
            {{ s.home.kind.replace('_', ' ') }} {{ day(s.home.date) }} · {{ said(s.home) }}</span
          ></span
        >
        <b v-if="s.home">{{ priced(s.home.price) }}</b>
      </p>
      <p class="quiet small">{{ s.pictures[s.shown - 1] ?? '' }}</p>
      <p v-if="s.home" class="small">{{ s.home.differences.join(', ') }}</p>
    </section>
    <p class="keys quiet small">
      ← → the next picture of both · ↑ ↓ another home ·
      {{ way === 'tick' ? 'Space tick' : 'K keep · X set aside · 1 new … 6 damaged' }} · Esc back
      <LinkButton @click="emit('close')">close</LinkButton>
    </p>
  </div>
</template>

<style scoped>
.two {
  position: absolute;
  inset: 0;
  z-index: 5;
  display: grid;
  grid-template-columns: 1fr 1fr;
  grid-template-rows: 1fr auto;
  gap: 6px 20px;
  padding: 16px 20px 10px;
  background: rgb(var(--v-theme-surface));
}
img,
.none {
  width: 100%;
  max-height: calc(100% - 70px);
  aspect-ratio: 3 / 2;
  object-fit: cover;
  border-radius: var(--corner-l);
}
section {
  min-height: 0;
  overflow: hidden;
}
.none {
  display: grid;
  place-items: center;
  background: rgb(var(--v-theme-mist));
}
.words {
  display: flex;
  justify-content: space-between;
  margin-top: 6px;
  font-size: var(--text-l);
}
.about {
  margin-left: 8px;
}
.keys {
  grid-column: 1 / -1;
  text-align: center;
}
</style>
