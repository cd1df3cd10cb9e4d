<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, got } from '@/shared/api/client'
import { useWorkup } from '../useWorkup'
import { usePaper } from './usePaper'

/** One page as it will print, all its sheets; or why it is not printed. */
const props = defineProps<{ page: string; number: number }>()
const { id } = useWorkup()
const { on, label, picture, numberOf, revision, silent, toggle } = usePaper()
const why = computed(() => silent(props.page))
const number = computed(() => numberOf(props.page))
const told = useQuery({
  queryKey: ['sheets', id, computed(() => props.page), number, revision],
  queryFn: () =>
    got(
      api.GET('/api/workups/{workup_id}/pages/{number}', {
        params: { path: { workup_id: id.value, number: number.value } },
      }),
    ),
  enabled: computed(() => number.value > 0 && !why.value),
  placeholderData: keepPreviousData,
})
const sheets = computed(() => told.data.value?.sheets ?? 1)
/** Sheets whose picture is on its way: what is still in sight is pale until then. */
const stale = ref(new Set<number>())
watch(
  () => picture(props.page),
  () => (stale.value = new Set(Array.from({ length: sheets.value }, (_, i) => i + 1))),
)
function fresh(sheet: number) {
  const left = new Set(stale.value)
  left.delete(sheet)
  stale.value = left
}
</script>

<template>
  <div class="page" tabindex="0" role="region" aria-label="The page as it will print">
    <div v-if="why" class="silent">
      <h3>“{{ label(page) }}” is not printed</h3>
      <p>{{ why }}</p>
      <LinkButton v-if="on.length > 1" @click="toggle(page)">Leave this page out</LinkButton>
    </div>
    <template v-else>
      <figure v-for="sheet in sheets" :key="sheet">
        <img
          :src="picture(page, sheet)"
          :class="{ stale: stale.has(sheet) }"
          :alt="`Page ${props.number}: ${label(page)}${sheets > 1 ? `, sheet ${sheet} of ${sheets}` : ''}`"
          @load="fresh(sheet)"
        />
        <figcaption v-if="sheets > 1" class="quiet small">{{ sheet }} of {{ sheets }}</figcaption>
      </figure>
    </template>
  </div>
</template>

<style scoped>
.page {
  overflow: auto;
  padding: 16px;
  text-align: center;
}
figure {
  margin: 0 0 14px;
}
img {
  width: 100%;
  max-width: 760px;
  aspect-ratio: 17 / 22;
  object-fit: contain;
  background: #fff;
  box-shadow: 0 3px 18px rgba(20, 40, 50, 0.16);
  transition: opacity 0.1s;
}
.stale {
  opacity: 0.45;
}
.silent {
  max-width: 460px;
  margin: 12vh auto 0;
  padding: 22px 26px;
  text-align: left;
  background: rgb(var(--v-theme-surface));
  border: 1px dashed rgb(var(--v-theme-quiet));
  border-radius: var(--corner);
  display: grid;
  gap: 8px;
  justify-items: start;
}
</style>
