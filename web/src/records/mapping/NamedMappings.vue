<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import type { useMapping } from './useMapping'

/** Mappings that have a name: one of them is taken for this file, or this file's is kept under a name for the office. */
const props = defineProps<{
  kind: Docs['MappingToSave']['kind']
  columns: string[]
  proposed: Docs['PartDoc'][]
  mapping: ReturnType<typeof useMapping>
}>()
const client = useQueryClient()
const saved = useQuery({
  queryKey: ['mappings'],
  queryFn: () => got(api.GET('/api/records/mappings')),
})
const fitting = computed(() => (saved.data.value ?? []).filter((m) => m.kind === props.kind))
const naming = ref(false)
const name = ref('')
const chosen = ref('')
const said = ref('')
const fault = ref('')
/** What of it the file has columns for. */
function take(which: string) {
  const found = fitting.value.find((m) => m.name === which)
  chosen.value = which
  fault.value = ''
  if (!found) {
    props.mapping.replace(props.proposed)
    said.value = ''
    return
  }
  const there = found.parts.filter((p) => (p.columns ?? []).every((c) => props.columns.includes(c)))
  props.mapping.replace(there)
  const lacking = found.parts.length - there.length
  said.value = lacking
    ? `Taken, without ${lacking} ${lacking === 1 ? 'field' : 'fields'} whose columns this file does not have.`
    : 'Taken.'
}
async function tell(asked: Promise<unknown>, words: string) {
  fault.value = said.value = ''
  try {
    await asked
    said.value = words
    naming.value = false
    await client.invalidateQueries({ queryKey: ['mappings'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
const put = (named: string, kind: typeof props.kind, parts: Docs['PartDoc'][]) =>
  got(api.PUT('/api/records/mappings/{name}', { params: { path: { name: named } }, body: { kind, parts } }))
const keep = () =>
  tell(
    put(name.value.trim(), props.kind, props.mapping.parts.value),
    `Kept as “${name.value.trim()}”: for every source of the office.`,
  )
/** The one that was deleted, to be taken back. */
const gone = ref<Docs['NamedMappingDoc'] | null>(null)
async function forget() {
  const held = fitting.value.find((m) => m.name === chosen.value)
  if (!held) return
  await tell(
    got(api.DELETE('/api/records/mappings/{name}', { params: { path: { name: held.name } } })),
    `“${held.name}” is deleted.`,
  )
  if (fault.value) return
  gone.value = held
  chosen.value = ''
}
async function back() {
  const held = gone.value!
  await tell(put(held.name, props.kind, held.parts), `“${held.name}” is there again.`)
  if (!fault.value) gone.value = null
}
</script>

<template>
  <div class="named small framed">
    <label v-if="fitting.length">
      Mapping
      <ChoiceField :model-value="chosen" aria-label="A mapping that is kept" @chosen="take($event)">
        <option value="">as proposed</option>
        <option v-for="m in fitting" :key="m.name" :value="m.name">{{ m.name }}</option>
      </ChoiceField>
    </label>
    <LinkButton v-if="chosen" @click="forget">delete it</LinkButton>
    <LinkButton v-if="!naming" @click="naming = true">keep this mapping under a name</LinkButton>
    <form v-else class="named" @submit.prevent="keep">
      <TextField
        v-model="name"
        aria-label="Name of the mapping"
        placeholder="its name"
        required
        maxlength="80"
      />
      <ActButton type="submit" :disabled="!name.trim()">Keep it</ActButton>
      <LinkButton @click="naming = false">no</LinkButton>
    </form>
    <span v-if="said" class="moss" role="status">{{ said }}</span>
    <LinkButton v-if="gone" @click="back">take it back</LinkButton>
    <span v-if="fault" class="clay" role="alert">{{ fault }}</span>
  </div>
</template>

<style scoped>
.named {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
</style>
