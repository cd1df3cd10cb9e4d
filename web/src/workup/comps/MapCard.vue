<script setup lang="ts">
import { computed } from 'vue'
import Decide from '@/shared/Decide.vue'
import { priced, shortDay } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { KIND_WORDS } from '@/shared/marks'
import { useWorkup, type Candidate } from '../useWorkup'

/** What a mark on the map stands for: address, kind, price; several where several homes stand at one place. */
const props = defineProps<{ keys: string[]; rows: Candidate[] }>()
defineEmits<{ open: [key: string]; keep: [key: string]; aside: [key: string]; back: [key: string] }>()
const { choiceOf } = useWorkup()
const MOST = 40
const homes = computed(() => props.rows.filter((r) => props.keys.includes(r.listing_id)))
const name = (h: Candidate) => h.address || h.listing_id
</script>

<template>
  <div>
    <p v-if="homes.length > 1" class="quiet">{{ homes.length }} homes stand here</p>
    <div v-for="h in homes.slice(0, MOST)" :key="h.listing_id" class="home">
      <p class="name">
        <Mark :kind="h.kind" :choice="choiceOf(h.listing_id)" />
        <button type="button" class="link" :title="`Open ${name(h)}`" @click="$emit('open', h.listing_id)">
          {{ name(h) }}
        </button>
      </p>
      <p class="line">
        <span>{{ KIND_WORDS[h.kind] ?? h.kind }} {{ shortDay(h.date) }}</span> <b>{{ priced(h.price) }}</b>
      </p>
      <Decide
        wide
        :choice="choiceOf(h.listing_id)"
        :name="name(h)"
        @keep="$emit('keep', h.listing_id)"
        @aside="$emit('aside', h.listing_id)"
        @back="$emit('back', h.listing_id)"
      />
    </div>
    <p v-if="homes.length > MOST" class="quiet">and {{ homes.length - MOST }} more: see the table</p>
  </div>
</template>

<style scoped>
.home + .home {
  margin-top: 8px;
  padding-top: 6px;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.name {
  display: flex;
  align-items: center;
  gap: 4px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  margin-bottom: 4px;
}
</style>
