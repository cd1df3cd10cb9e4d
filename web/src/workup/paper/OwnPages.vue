<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import FilePick from '@/shared/FilePick.vue'

/** Pages of the agent's own, from PDFs and pictures; each stands among the others and is placed like them. */
const emit = defineEmits<{ added: [page: string] }>()
const client = useQueryClient()
const pages = useQuery({ queryKey: ['own-pages'], queryFn: () => got(api.GET('/api/own-pages')) })
const fault = ref('')
async function anew() {
  await client.invalidateQueries({ queryKey: ['own-pages'] })
  await client.invalidateQueries({ queryKey: ['layouts'] })
}
async function add(file: File) {
  fault.value = ''
  const title = encodeURIComponent(file.name.replace(/\.[^.]+$/, ''))
  const answer = await fetch(`/api/own-pages?title=${title}`, { method: 'POST', body: file })
  const told = (await answer.json()) as Docs['OwnPageDoc'] & { message?: string }
  if (answer.ok) {
    await anew()
    emit('added', told.page)
  } else fault.value = told.message ?? 'The file could not be read.'
}
async function drop(page: string) {
  fault.value = ''
  try {
    await got(api.DELETE('/api/own-pages/{page}', { params: { path: { page } } }))
    await anew()
  } catch (error) {
    fault.value = (error as Told).message
  }
}
</script>

<template>
  <details class="own">
    <summary>Pages of your own: {{ pages.data.value?.length ?? 0 }}</summary>
    <p v-for="p in pages.data.value ?? []" :key="p.page" class="small row">
      <span
        >{{ p.title }}<span class="quiet"> · {{ p.pages }} {{ p.pages === 1 ? 'page' : 'pages' }}</span></span
      >
      <button type="button" class="link small" :aria-label="`Take ${p.title} away`" @click="drop(p.page)">
        ×
      </button>
    </p>
    <FilePick class="small" accept=".pdf,image/png,image/jpeg,image/webp" @chosen="add"
      >Add a PDF or a picture</FilePick
    >
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
  font-size: 13px;
}
.row {
  display: flex;
  justify-content: space-between;
}
</style>
