<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChangesTable from '@/shared/ChangesTable.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed, ref } from 'vue'
import { day, moment } from '@/shared/format'
import { RHYTHMS } from '@/shared/rhythms'
import { useWatches } from '@/shared/useWatches'
import type { Docs } from '@/shared/api/client'

/** What is new in the searches and views that are watched; looked at, it goes from the desk. */
const { watches, seen } = useWatches()
const shown = computed(() => watches.data.value ?? [])
const opened = ref<Docs['WatchDoc'] | null>(null)
async function done() {
  const one = opened.value
  opened.value = null
  if (one) await seen(one)
}
</script>

<template>
  <section v-if="shown.length" class="mt-8" aria-labelledby="watched">
    <h2 id="watched" class="mb-2">Watched</h2>
    <ul class="sheet">
      <li v-for="w in shown" :key="w.kind + w.number">
        <b>{{ w.name }}</b>
        <span v-if="w.news">
          <LinkButton :aria-label="`What is new in ${w.name}: ${w.in_words}`" @click="opened = w">
            {{ w.in_words }}
          </LinkButton>
        </span>
        <span v-else class="quiet">nothing new</span>
        <span class="quiet small when">
          {{
            w.told_at
              ? `found ${moment(w.told_at)}`
              : `looked at ${RHYTHMS[w.every_minutes]}, next ${moment(w.due_at)}`
          }}
        </span>
      </li>
    </ul>
    <DialogBox
      :title="`New in ${opened?.name ?? ''}`"
      :width="860"
      :shown="opened !== null"
      @close="opened = null"
    >
      <template v-if="opened?.news">
        <p class="quiet small mb-2">{{ opened.words }} Records through {{ day(opened.news.through) }}.</p>
        <div class="list"><ChangesTable :told="opened.news" /></div>
        <p class="mt-3"><ActButton strong @click="done">Seen</ActButton></p>
      </template>
    </DialogBox>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 230px 1fr auto;
  gap: 16px;
  align-items: baseline;
  padding: 10px 16px;
}
li + li {
  border-top: var(--line);
}
.when {
  white-space: nowrap;
}
.list {
  max-height: 56vh;
  overflow: auto;
}
</style>
