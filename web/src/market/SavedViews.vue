<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { vFocus } from '@/shared/vFocus'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { inTurn } from '@/shared/useDraft'
import { computed, ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import { DAILY } from '@/shared/rhythms'
import { useWatches } from '@/shared/useWatches'
import { FRESH, type View, type ViewTools } from './useView'

/** Views kept by name: opened, renamed, replaced, pinned to the desk, deleted with a way back. */
type Saved = Docs['SavedView']
const props = defineProps<{ tools: ViewTools }>()
const { view, label } = props.tools
const client = useQueryClient()
const { of, watch } = useWatches()
const isWatched = (v: Saved) => of('view', v.view_id) !== undefined
const saved = useQuery({ queryKey: ['views'], queryFn: () => got(api.GET('/api/views')) })
const same = (a: View, b: View) => JSON.stringify({ ...FRESH, ...a }) === JSON.stringify({ ...FRESH, ...b })
const openAt = computed(() => saved.data.value?.find((v) => same(v.view as View, view.value))?.view_id)
const name = ref('')
const fault = ref('')
const taken = ref('') // the name under which another view stands
const deleted = ref<Saved | null>(null)
const renaming = ref<number | null>(null)
const usualName = () =>
  `${label(view.value.measures![0]!)}${view.value.places?.[0] ? `, ${view.value.places[0]}` : ''}`
const next = inTurn()
/** A view as the service has it now: an earlier press may have changed it since it was drawn. */
const fresh = (v: Saved) => saved.data.value?.find((x) => x.view_id === v.view_id) ?? v
/** One at a time, each with the list read anew after it. */
const tried = (act: () => Promise<unknown>) => next(() => now(act))
async function now(act: () => Promise<unknown>): Promise<boolean> {
  fault.value = taken.value = ''
  try {
    await act()
    return true
  } catch (error) {
    fault.value = (error as Told).message
    if ((error as Told).field === 'name') taken.value = name.value.trim() || usualName()
    return false
  } finally {
    await Promise.all(['views', 'watches'].map((key) => client.invalidateQueries({ queryKey: [key] })))
  }
}
async function keep(pinned: boolean, replace = false) {
  const own = name.value.trim() || usualName()
  const body = { name: own, pinned, replace, view: view.value }
  if (await tried(() => got(api.POST('/api/views', { body })))) name.value = ''
}
const written = (v: Saved) => ({
  name: v.name,
  pinned: v.pinned,
  replace: false,
  view: v.view as View,
})
const change = (v: Saved, to: Partial<Saved>) =>
  tried(() =>
    got(
      api.PUT('/api/views/{view_id}', {
        params: { path: { view_id: v.view_id } },
        body: { ...written(fresh(v)), ...to },
      }),
    ),
  )
async function rename(v: Saved, text: string) {
  renaming.value = null
  if (text.trim() && text.trim() !== v.name) await change(v, { name: text.trim() })
}
const drop = (v: Saved) =>
  tried(async () => {
    const last = fresh(v)
    await got(api.DELETE('/api/views/{view_id}', { params: { path: { view_id: v.view_id } } }))
    deleted.value = last
  })
async function bringBack() {
  const v = deleted.value
  if (v && (await tried(() => got(api.POST('/api/views', { body: written(v) }))))) deleted.value = null
}
</script>

<template>
  <div class="views" role="group" aria-label="Saved views">
    <p v-if="deleted" class="small" role="status">
      “{{ deleted.name }}” is deleted.
      <LinkButton @click="bringBack">Bring it back</LinkButton>
    </p>
    <div class="list">
      <p
        v-for="v in saved.data.value ?? []"
        :key="v.view_id"
        class="view"
        :class="{ open: v.view_id === openAt }"
      >
        <TypedInput
          v-if="renaming === v.view_id"
          v-focus
          :value="v.name"
          maxlength="80"
          :aria-label="`New name of ${v.name}`"
          @typed="rename(v, $event)"
          @keydown.esc.stop="renaming = null"
        />
        <LinkButton
          v-else
          class="name"
          :aria-current="v.view_id === openAt"
          :title="v.name"
          @click="view = { ...FRESH, ...(v.view as View) }"
        >
          {{ v.name }}
        </LinkButton>
        <LinkButton class="small" :aria-label="`Rename ${v.name}`" @click="renaming = v.view_id">
          rename
        </LinkButton>
        <LinkButton
          class="small"
          :aria-label="v.pinned ? `Take ${v.name} off the desk` : `Pin ${v.name} to the desk`"
          @click="change(v, { pinned: !v.pinned })"
        >
          {{ v.pinned ? 'on the desk' : 'pin' }}
        </LinkButton>
        <LinkButton
          class="small"
          :aria-label="isWatched(v) ? `Watch ${v.name} no more` : `Watch ${v.name}`"
          title="Looked at every morning: what happens in it stands on the desk, and comes by a letter"
          @click="tried(() => watch('view', v.view_id, isWatched(v) ? null : DAILY))"
        >
          {{ isWatched(v) ? 'watched' : 'watch' }}
        </LinkButton>
        <LinkButton class="small" :aria-label="`Delete ${v.name}`" @click="drop(v)"> delete </LinkButton>
      </p>
    </div>
    <form class="save" @submit.prevent="keep(false)">
      <TextField
        v-model="name"
        aria-label="Name of the view"
        placeholder="Name of this view"
        maxlength="80"
      />
      <ActButton type="submit">Save</ActButton>
      <ActButton @click="keep(true)">Pin</ActButton>
    </form>
    <p v-if="fault" class="clay small" role="alert">
      {{ fault }}
      <LinkButton v-if="taken" @click="((name = taken), keep(false, true))"> Replace it </LinkButton>
    </p>
  </div>
</template>

<style scoped>
.view {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.list {
  max-height: 132px;
  overflow: auto;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: left;
}
.open .name {
  font-weight: 600;
  text-decoration: none;
}
.view input {
  flex: 1;
  min-width: 0;
  padding: 1px 6px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
.save {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 6px;
  margin-top: 6px;
}
.save input {
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
