<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import type { Docs } from '@/shared/api/client'
import { sizedWords } from '@/shared/format'
import { useWorkup } from '../useWorkup'

/** What lies at the home or near it, each to be noted as bearing on the price. */
defineProps<{ corner: string[]; near: Docs['AroundDoc']['near'] }>()
const emit = defineEmits<{ bears: [label: string] }>()
const { state } = useWorkup()
const noted = (name: string) => (state.value?.features ?? []).some((f) => f.label.startsWith(name))
</script>

<template>
  <ul v-if="near.length || corner.length" class="near small" aria-label="What lies around">
    <li v-if="corner.length">
      <span
        ><b>On a corner</b> <span class="quiet">{{ corner.slice(0, 2).join(' and ') }}</span></span
      >
      <span>here</span>
      <LinkButton :disabled="noted('Corner lot')" @click="emit('bears', 'Corner lot')">
        {{ noted('Corner lot') ? 'noted' : 'bears on the price' }}
      </LinkButton>
    </li>
    <li v-for="n in near" :key="n.name">
      <span
        ><b>{{ n.name }}</b> <span v-if="n.name !== n.kind" class="quiet">{{ n.kind }}</span></span
      >
      <span>{{ n.feet === 0 ? 'here' : sizedWords(n.feet, 'ft') }}</span>
      <LinkButton
        :disabled="noted(n.name)"
        @click="emit('bears', `${n.name} ${n.feet <= 150 ? 'behind' : 'near'}`)"
      >
        {{ noted(n.name) ? 'noted' : 'bears on the price' }}
      </LinkButton>
    </li>
  </ul>
</template>

<style scoped>
.near {
  list-style: none;
  padding: 0;
  margin-top: 6px;
}
.near li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 70px 118px;
  gap: 8px;
  padding: 2px 0;
}
.near li > :nth-child(2),
.near li > :nth-child(3) {
  text-align: right;
}
</style>
