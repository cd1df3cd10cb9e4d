<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told } from '@/shared/api/client'
import type { View, ViewTools } from './useView'

/** Views kept by name: taken, pinned to the desk, let go. */
const props = defineProps<{ tools: ViewTools }>()
const { view, label } = props.tools
const client = useQueryClient()
const saved = useQuery({ queryKey: ['views'], queryFn: () => got(api.GET('/api/views')) })
const name = ref('')
const fault = ref('')
async function keep(pinned: boolean, title = name.value, what: View = view.value) {
  fault.value = ''
  const own = title.trim() || `${label(what.measures![0]!)}${what.places?.[0] ? `, ${what.places[0]}` : ''}`
  try {
    await got(api.POST('/api/views', { body: { name: own, pinned, view: what } }))
    name.value = ''
    await client.invalidateQueries({ queryKey: ['views'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
async function drop(id: number) {
  await got(api.DELETE('/api/views/{view_id}', { params: { path: { view_id: id } } }))
  await client.invalidateQueries({ queryKey: ['views'] })
}
</script>

<template>
  <div class="views">
    <p v-for="v in saved.data.value ?? []" :key="v.view_id" class="view">
      <button type="button" class="link" @click="view = { ...(v.view as View) }">{{ v.name }}</button>
      <button
        type="button"
        class="link small quiet"
        :aria-label="v.pinned ? `Take ${v.name} off the desk` : `Pin ${v.name} to the desk`"
        @click="keep(!v.pinned, v.name, v.view as View)"
      >
        {{ v.pinned ? 'on the desk' : 'pin' }}
      </button>
      <button type="button" class="link small" :aria-label="`Delete ${v.name}`" @click="drop(v.view_id)">
        ×
      </button>
    </p>
    <form class="save" @submit.prevent="keep(false)">
      <input v-model="name" aria-label="Name of the view" placeholder="Name of this view" maxlength="80" />
      <button type="submit" class="do">Save</button>
      <button type="button" class="do" @click="keep(true)">Pin</button>
    </form>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.view {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.view > :nth-child(2) {
  margin-left: auto;
}
.save {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 6px;
  margin-top: 6px;
}
.save input {
  padding: 4px 8px;
  border: 1px solid rgb(var(--v-theme-line));
  border-radius: 4px;
  color: inherit;
}
</style>
