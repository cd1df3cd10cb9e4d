<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import { day, priced } from '../format'
import type { Marked } from './homeMap'
import Mark from './Mark.vue'
import { KIND_WORDS, type Choice } from './marks'

/** What a mark on a map stands for: address, kind, day, price. */
defineProps<{ home: Marked; choice?: Choice; opens?: boolean }>()
defineEmits<{ open: [] }>()
</script>

<template>
  <p class="name">
    <Mark :kind="home.kind" :choice="choice" />
    <LinkButton v-if="opens" :title="`Open ${home.address || home.listing_id}`" @click="$emit('open')">
      {{ home.address || home.listing_id }}
    </LinkButton>
    <b v-else>{{ home.address || home.listing_id }}</b>
  </p>
  <p class="line">
    <span>{{ KIND_WORDS[home.kind] ?? home.kind }} {{ day(home.date) }}</span> <b>{{ priced(home.price) }}</b>
  </p>
</template>

<style scoped>
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
