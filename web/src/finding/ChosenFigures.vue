<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed } from 'vue'
import { money, number, perSqft, perSqftWords } from '@/shared/format'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import { useFinding } from './useFinding'
import { useFigures } from './useFigures'

/** What the chosen come to, in one line a kind, wherever they are chosen. */
const props = defineProps<{ word: string }>()
defineEmits<{ open: [] }>()
const finding = useFinding()
const told = useFigures(finding)
const of = (name: string, kind: string) =>
  told.data.value?.fields.find((f) => f.field === name)?.chosen?.find((k) => k.kind === kind)
const lines = computed(() =>
  (told.data.value?.fields.find((f) => f.field === 'price')?.chosen ?? [])
    .filter((k) => k.kind)
    .map((price) => ({ price, per: of('price_per_sqft', price.kind) })),
)
const named = (kind: string, n: number) => `${number(n)} ${KIND_WORDS[kind] ?? kind}`
</script>

<template>
  <div v-if="lines.length" class="chosen small" role="status" :aria-label="`Figures of the ${props.word}`">
    <p v-for="l in lines" :key="l.price.kind">
      <Mark :kind="l.price.kind" choice="kept" />
      <b>{{ named(l.price.kind, l.price.count) }} {{ word }}</b>
      <template v-if="l.price.count > 1">
        <span>low {{ money(l.price.low) }}</span>
        <span>mean {{ money(Math.round(l.price.mean)) }}</span>
        <span>
          median <b>{{ money(Math.round(l.price.median)) }}</b>
        </span>
        <span>high {{ money(l.price.high) }}</span>
      </template>
      <b v-else>{{ money(l.price.median) }}</b>
      <span v-if="l.per" class="quiet">
        <template v-if="l.per.count > 1">{{ perSqft(l.per.low) }}–{{ perSqft(l.per.high) }}, mean </template>
        {{ perSqftWords(l.per.mean) }}
      </span>
    </p>
    <LinkButton class="small" @click="$emit('open')">all figures</LinkButton>
  </div>
</template>

<style scoped>
.chosen {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 22px;
  margin-top: 6px;
  padding-left: 8px;
  border-left: 3px solid rgb(var(--v-theme-cedar));
}
p {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 10px;
}
</style>
