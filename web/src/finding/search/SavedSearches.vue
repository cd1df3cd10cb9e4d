<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { mdiBookmarkOutline, mdiDeleteOutline } from '@mdi/js'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import { RHYTHMS, rhythmOf } from '@/shared/rhythms'
import { useWatches } from '@/shared/useWatches'
import { useFinding } from '../useFinding'

/** Searches kept by name: this one saved, another taken to this home with its bands laid about it. */
const emit = defineEmits<{ take: [search: Docs['SearchDoc']] }>()
const { ask, home } = useFinding()
const client = useQueryClient()
const opened = ref(false)
const { of, watch } = useWatches(opened)
const name = ref('')
const said = ref('')
const failed = ref('')
const saved = useQuery({
  queryKey: ['searches'],
  queryFn: () => got(api.GET('/api/searches')),
  enabled: computed(() => opened.value),
})
const again = () =>
  Promise.all(['searches', 'watches'].map((key) => client.invalidateQueries({ queryKey: [key] })))

async function attempt(work: () => Promise<void>) {
  failed.value = ''
  try {
    await work()
  } catch (error) {
    said.value = ''
    failed.value = (error as Told).message
  }
}
async function keep() {
  const given = name.value.trim()
  if (!given) return
  await ask.saveSearch(given)
  said.value = `Saved as “${given}”.`
  name.value = ''
  await again()
}
async function take(search: Docs['SavedSearch']) {
  const carried = await ask.carry(search.search_id)
  emit('take', carried.search)
  said.value = `“${search.name}” ${home.value?.named ? 'laid about this home' : 'taken'}.${
    carried.left.length ? ` Left behind, as they belong to their place: ${carried.left.join(', ')}.` : ''
  }`
}
/** minutes: "" for not watched. */
async function watched(search: Docs['SavedSearch'], minutes: string) {
  await watch('search', search.search_id, rhythmOf(minutes))
  said.value = minutes
    ? `“${search.name}” is looked at ${RHYTHMS[minutes]}; what is new stands on the desk.`
    : `“${search.name}” is watched no more.`
}
async function away(search: Docs['SavedSearch']) {
  await api.DELETE('/api/searches/{search_id}', { params: { path: { search_id: search.search_id } } })
  said.value = `“${search.name}” taken away.`
  await again()
}
</script>

<template>
  <MenuBox v-model="opened">
    <template #press="{ props }">
      <ActButton v-bind="props" :icon="mdiBookmarkOutline" plain>Searches</ActButton>
    </template>
    <div class="sheet menu" role="dialog" aria-label="Saved searches">
      <form class="save" @submit.prevent="attempt(keep)">
        <TextField
          v-model="name"
          maxlength="80"
          placeholder="a name for this search"
          aria-label="Name for this search"
        />
        <ActButton type="submit" :disabled="!name.trim()">Save</ActButton>
      </form>
      <p v-if="said" class="small moss" role="status">{{ said }}</p>
      <p v-if="failed" class="small clay" role="alert">{{ failed }}</p>
      <ul v-if="saved.data.value?.length">
        <li v-for="s in saved.data.value" :key="s.search_id">
          <LinkButton :aria-label="`Take ${s.name}`" @click="attempt(() => take(s))">
            {{ s.name }}
          </LinkButton>
          <IconButton
            :icon="mdiDeleteOutline"
            size="x-small"
            :name="`Take ${s.name} away`"
            @click="attempt(() => away(s))"
          />
          <span class="quiet small">{{ s.words }}</span>
          <ChoiceField
            class="rhythm small"
            :model-value="String(of('search', s.search_id)?.every_minutes ?? '')"
            :aria-label="`How often ${s.name} is looked at`"
            @update:model-value="attempt(() => watched(s, String($event)))"
          >
            <option value="">not watched</option>
            <option v-for="(words, minutes) in RHYTHMS" :key="minutes" :value="String(minutes)">
              watched {{ words }}
            </option>
          </ChoiceField>
        </li>
      </ul>
      <p v-else class="quiet small">
        None yet. A saved search can be taken to another home: its bands lie about that home as they lie about
        this one.
      </p>
    </div>
  </MenuBox>
</template>

<style scoped>
.menu {
  width: 430px;
  padding: 12px 16px;
  max-height: 420px;
  overflow: auto;
}
.save {
  display: flex;
  gap: 8px;
  margin-bottom: 8px;
}
.save input {
  flex: 1;
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr 30px;
  align-items: center;
  padding: 4px 0;
  border-top: 1px solid rgba(var(--v-theme-line), 0.6);
}
li .link {
  text-align: left;
  font-weight: 600;
}
li span,
.rhythm {
  grid-column: 1 / 3;
}
.rhythm {
  justify-self: start;
  margin-top: 2px;
}
</style>
