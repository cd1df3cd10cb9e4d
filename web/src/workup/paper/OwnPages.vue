<script setup lang="ts">
import { served } from '@/shared/servicePath'
import { upload } from '@/shared/uploading'
import FilePick from '@/shared/ui/FilePick.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import WritePage from './WritePage.vue'

/** Pages of the agent's own, from PDFs and pictures or written here; each stands among the others and is placed like them. */
type Page = Docs['OwnPageDoc']
const emit = defineEmits<{ added: [page: string] }>()
const client = useQueryClient()
const pages = useQuery({ queryKey: ['own-pages'], queryFn: () => got(api.GET('/api/own-pages')) })
const fault = ref('')
const share = ref<number | null>(null)
const writing = ref<Page | true | null>(null)
async function anew() {
  await Promise.all(
    ['own-pages', 'layouts', 'pages', 'workup'].map((name) => client.invalidateQueries({ queryKey: [name] })),
  )
}
async function add(file: File) {
  fault.value = ''
  share.value = 0
  const title = encodeURIComponent(file.name.replace(/\.[^.]+$/, ''))
  try {
    const told = await upload<Page>(`/api/own-pages?title=${title}`, file, (part) => (share.value = part))
    await anew()
    emit('added', told.page)
  } catch (error) {
    fault.value = (error as Told).message
  }
  share.value = null
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
async function written(page: Page) {
  const fresh = writing.value === true
  writing.value = null
  await anew()
  if (fresh) emit('added', page.page)
}
</script>

<template>
  <details class="own">
    <summary>Pages of your own: {{ pages.data.value?.length ?? 0 }}</summary>
    <div v-for="p in pages.data.value ?? []" :key="p.page" class="small row">
      <img
        v-if="!p.written"
        :src="served(`/api/own-pages/${p.page}/1`)"
        :alt="`First page of ${p.title}`"
        loading="lazy"
      />
      <span v-else class="sheet words" aria-hidden="true">Aa</span>
      <span>
        {{ p.title }}
        <span class="quiet block">{{
          p.written ? 'written here' : p.pages === 1 ? '1 page' : `${p.pages} pages`
        }}</span>
        <LinkButton v-if="p.written" class="small" @click="writing = p">edit</LinkButton>
      </span>
      <LinkButton class="small" :aria-label="`Take ${p.title} away`" @click="drop(p.page)"> × </LinkButton>
    </div>
    <p class="small">
      <FilePick accept=".pdf,image/png,image/jpeg,image/webp" @chosen="add">Add a PDF or a picture</FilePick>
      or <LinkButton class="small" @click="writing = true">write a page</LinkButton>
    </p>
    <p v-if="share !== null" class="small" role="status">
      {{ share < 1 ? 'Sending' : 'Reading its pages' }}
      <progress :value="share" max="1" aria-label="How much has been sent" />
    </p>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    <WritePage
      v-if="writing"
      :page="writing === true ? null : writing"
      @close="writing = null"
      @done="written"
    />
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
  font-size: var(--text-s);
}
.row {
  display: grid;
  grid-template-columns: 44px 1fr auto;
  gap: 10px;
  margin: 6px 0;
  overflow-wrap: anywhere;
}
.row img,
.words {
  width: 44px;
  height: 57px;
  object-fit: cover;
  object-position: top;
  background: #fff;
  border: var(--line);
}
.words {
  display: grid;
  place-items: center;
  background: transparent;
}
.row > button {
  min-width: 24px;
}
.block {
  display: block;
}
progress {
  width: 100%;
}
</style>
