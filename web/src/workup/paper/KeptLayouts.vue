<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told } from '@/shared/api/client'
import type { Paper } from './usePaper'

/** Layouts of the agent's own: pages, their order and options, kept by name. */
const props = defineProps<{ paper: Paper }>()
const emit = defineEmits<{ take: [paper: Paper] }>()
const client = useQueryClient()
const kept = useQuery({ queryKey: ['kept-layouts'], queryFn: () => got(api.GET('/api/kept-layouts')) })
const name = ref('')
const fault = ref('')
async function tried(act: () => Promise<unknown>) {
  fault.value = ''
  try {
    await act()
    await client.invalidateQueries({ queryKey: ['kept-layouts'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
const save = () =>
  tried(async () => {
    await got(api.POST('/api/kept-layouts', { body: { name: name.value, paper: props.paper } }))
    name.value = ''
  })
const drop = (layout_id: number) =>
  tried(() => got(api.DELETE('/api/kept-layouts/{layout_id}', { params: { path: { layout_id } } })))
/** What belongs to this home stays as it is. */
const take = (layout: Paper) =>
  emit('take', { ...layout, title: props.paper.title, letter: props.paper.letter, notes: props.paper.notes })
</script>

<template>
  <div class="kept">
    <p v-for="l in kept.data.value ?? []" :key="l.layout_id" class="row">
      <LinkButton class="small" @click="take(l.paper as Paper)">{{ l.name }}</LinkButton>
      <span class="quiet small">{{ l.paper.pages?.length }} pages</span>
      <LinkButton class="small" :aria-label="`Delete the layout ${l.name}`" @click="drop(l.layout_id)">
        ×
      </LinkButton>
    </p>
    <form class="save" @submit.prevent="save">
      <TextField
        v-model="name"
        aria-label="Name of this layout"
        placeholder="Keep these pages as …"
        maxlength="80"
        required
      />
      <ActButton type="submit">Save</ActButton>
    </form>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.kept {
  margin-bottom: 12px;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 24px;
  gap: 8px;
  justify-items: start;
}
.row > :last-child {
  width: 24px;
}
.save {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
}
.save input {
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
  font-size: var(--text-s);
}
</style>
