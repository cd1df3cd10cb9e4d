<script setup lang="ts">
import FilePick from '@/shared/ui/FilePick.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told, withFile } from '@/shared/api/client'

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
  const title = file.name.replace(/\.[^.]+$/, '')
  try {
    const told = await got(api.POST('/api/own-pages', { params: { query: { title } }, ...withFile(file) }))
    await anew()
    emit('added', told.page)
  } catch (error) {
    fault.value = (error as Told).message
  }
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
      <LinkButton class="small" :aria-label="`Take ${p.title} away`" @click="drop(p.page)"> × </LinkButton>
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
  font-size: var(--text-s);
}
.row {
  display: flex;
  justify-content: space-between;
}
</style>
