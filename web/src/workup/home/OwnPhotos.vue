<script setup lang="ts">
import { served } from '@/shared/servicePath'
import FilePick from '@/shared/ui/FilePick.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed, ref } from 'vue'
import { api, got, withFile, type Told } from '@/shared/api/client'
import { useQueryClient } from '@tanstack/vue-query'
import { useWorkup } from '../useWorkup'

const { id, state, send } = useWorkup()
const queries = useQueryClient()
const photos = computed(() => state.value?.photos ?? [])
const fault = ref('')
const over = ref(false)
const address = (file: string) => served(`/api/workups/${id.value}/photos/${file}`)

async function bring(files: Iterable<File> | null | undefined) {
  fault.value = ''
  over.value = false
  const kept = []
  for (const file of files ?? []) {
    try {
      const path = { workup_id: id.value }
      const { file: name } = await got(
        api.POST('/api/workups/{workup_id}/photos', { params: { path }, ...withFile(file) }),
      )
      kept.push({ file: name, caption: file.name.replace(/\.[^.]+$/, '').slice(0, 120) })
    } catch (error) {
      fault.value = `${file.name}: ${(error as Told).message}`
    }
  }
  const fresh = kept.filter((k) => !photos.value.some((p) => p.file === k.file))
  if (fresh.length) await send({ change: 'set_photos', photos: [...photos.value, ...fresh] })
}
function first(i: number) {
  const next = [...photos.value]
  next.unshift(...next.splice(i, 1))
  void send({ change: 'set_photos', photos: next })
}
const away = (i: number) => send({ change: 'set_photos', photos: photos.value.filter((_, k) => k !== i) })
async function erase(file: string) {
  if (
    !window.confirm(
      'Erase this picture for good? It goes from every earlier state too, and cannot be undone.',
    )
  )
    return
  fault.value = ''
  try {
    await got(
      api.DELETE('/api/workups/{workup_id}/photos/{file}', {
        params: { path: { workup_id: id.value, file } },
      }),
    )
  } catch (error) {
    fault.value = (error as Told).message
  }
  await queries.invalidateQueries({ queryKey: ['workup', id.value] })
}
</script>

<template>
  <section
    aria-labelledby="own-photos"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="bring($event.dataTransfer?.files)"
  >
    <h2 id="own-photos" class="mt-5 mb-1">Your pictures</h2>
    <div class="photos">
      <figure v-for="(p, i) in photos" :key="p.file">
        <img :src="address(p.file)" :alt="p.caption || 'Picture of the home'" />
        <figcaption class="small">
          <LinkButton v-if="i" @click="first(i)">to the front</LinkButton>
          <LinkButton :aria-label="`Take ${p.caption} away`" @click="away(i)"> take away </LinkButton>
          <LinkButton :aria-label="`Erase ${p.caption} for good`" @click="erase(p.file)"> erase </LinkButton>
        </figcaption>
      </figure>
      <FilePick
        class="drop"
        area
        several
        name="Add pictures"
        accept="image/jpeg,image/png,image/webp"
        @all="bring"
      >
        Drop pictures here, or choose them
      </FilePick>
    </div>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
  </section>
</template>

<style scoped>
.photos {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 8px;
}
figure {
  margin: 0;
}
img {
  display: block;
  width: 100%;
  aspect-ratio: 3 / 2;
  object-fit: cover;
  border-radius: var(--corner);
}
figcaption {
  display: flex;
  gap: 8px;
}
.drop {
  display: grid;
  place-items: center;
  min-height: 80px;
  padding: 6px;
  border: 1.5px dashed rgb(var(--v-theme-line));
  border-radius: var(--corner);
  text-align: center;
  font-size: var(--small);
  cursor: pointer;
}
.drop input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
.over .drop,
.drop:focus-within {
  border-color: rgb(var(--v-theme-rain));
}
</style>
