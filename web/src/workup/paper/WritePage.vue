<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import FilePick from '@/shared/ui/FilePick.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { ref } from 'vue'
import { api, got, Told, withFile, type Docs } from '@/shared/api/client'

/** A page of words and pictures, written here: a new one, or one that is written anew. */
const props = defineProps<{ page: Docs['OwnPageDoc'] | null }>()
const emit = defineEmits<{ close: []; done: [page: Docs['OwnPageDoc']] }>()
const MOST = 6
const title = ref(props.page?.title ?? '')
const words = ref(props.page?.written?.words ?? '')
const pictures = ref([...(props.page?.written?.pictures ?? [])])
const fault = ref('')
const busy = ref(false)
async function tried(act: () => Promise<void>) {
  fault.value = ''
  busy.value = true
  try {
    await act()
  } catch (error) {
    fault.value = (error as Told).message
  }
  busy.value = false
}
const add = (file: File) =>
  tried(async () => {
    const told = await got(api.POST('/api/card/pictures', withFile(file)))
    pictures.value = [...pictures.value, told.file]
  })
const keep = () =>
  tried(async () => {
    if (!title.value.trim()) {
      fault.value = 'Give the page a title.'
      return
    }
    const body = { title: title.value.trim(), words: words.value, pictures: pictures.value }
    const made = props.page
      ? await got(api.PUT('/api/own-pages/{page}', { params: { path: { page: props.page.page } }, body }))
      : await got(api.POST('/api/own-pages/written', { body }))
    emit('done', made)
  })
</script>

<template>
  <DialogBox :title="page ? 'Edit the page' : 'Write a page'" :width="620" @close="emit('close')">
    <div class="framed write">
      <label>Title <TextField v-model="title" maxlength="80" /></label>
      <label>
        Words
        <TextField
          v-model="words"
          :rows="10"
          maxlength="8000"
          placeholder="An empty line begins a paragraph."
        />
      </label>
      <div class="pictures">
        <span v-for="(file, i) in pictures" :key="file">
          <img :src="served(`/api/card/pictures/${file}`)" :alt="`Picture ${i + 1}`" />
          <LinkButton
            :aria-label="`Take picture ${i + 1} away`"
            @click="pictures = pictures.filter((f) => f !== file)"
          >
            ×
          </LinkButton>
        </span>
      </div>
      <FilePick v-if="pictures.length < MOST" accept="image/png,image/jpeg,image/webp" @chosen="add">
        Add a picture
      </FilePick>
      <p v-if="fault" class="clay" role="alert">{{ fault }}</p>
      <p><ActButton strong :disabled="busy" @click="keep">Keep the page</ActButton></p>
    </div>
  </DialogBox>
</template>

<style scoped>
.write {
  display: grid;
  gap: 12px;
}
.write label:not(:has([type='file'])) {
  display: grid;
  font-size: var(--small);
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.pictures img {
  height: 70px;
  border-radius: var(--corner);
}
</style>
