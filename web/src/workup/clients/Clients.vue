<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import FilePick from '@/shared/ui/FilePick.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, Told, type Docs, withFile } from '@/shared/api/client'
import { counted } from '@/shared/format'

/** People to whom reports go: added one by one or from a file of contacts. */
type Person = Docs['PersonDoc']
const client = useQueryClient()
const list = useQuery({ queryKey: ['clients'], queryFn: () => got(api.GET('/api/clients')) })
const sought = ref('')
const rows = computed(() => {
  const words = sought.value.toLowerCase()
  return (list.data.value ?? []).filter((c) =>
    `${c.name} ${c.email} ${c.address}`.toLowerCase().includes(words),
  )
})
const FIELDS: [keyof Person, string][] = [
  ['name', 'Name'],
  ['email', 'E-mail'],
  ['phone', 'Phone'],
  ['address', 'Address'],
  ['note', 'Note'],
]
const BLANK: Person = { name: '', email: '', phone: '', address: '', note: '' }
const draft = ref<Person>({ ...BLANK })
const at = ref<number | null>(null)
const fault = ref('')
const said = ref('')
const left = ref<string[]>([])
async function tried(act: () => Promise<unknown>) {
  fault.value = ''
  said.value = ''
  left.value = []
  try {
    await act()
    await client.invalidateQueries({ queryKey: ['clients'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
const save = () =>
  tried(async () => {
    const body = draft.value
    if (at.value === null) await got(api.POST('/api/clients', { body }))
    else await got(api.PUT('/api/clients/{client_id}', { params: { path: { client_id: at.value } }, body }))
    said.value = `${body.name} is kept.`
    clear()
  })
function clear() {
  draft.value = { ...BLANK }
  at.value = null
}
function take(c: Docs['ClientDoc']) {
  const { client_id, ...person } = c
  at.value = client_id
  draft.value = person
}
const drop = (id: number) =>
  tried(() => got(api.DELETE('/api/clients/{client_id}', { params: { path: { client_id: id } } })))
async function erase(id: number, name: string) {
  const asked = `Erase ${name} for good? All that was delivered to them, its messages and links, and their name in workups go too. This cannot be undone.`
  if (!window.confirm(asked)) return
  await tried(async () => {
    const gone = await got(
      api.POST('/api/clients/{client_id}/erase', { params: { path: { client_id: id } } }),
    )
    said.value = `${name} is erased, with ${counted(gone.deliveries, 'delivery', 'deliveries')}.`
    clear()
    await client.invalidateQueries({ queryKey: ['deliveries'] })
    await client.invalidateQueries({ queryKey: ['workups'] })
  })
}
async function bringIn(file: File) {
  await tried(async () => {
    const told = await got(api.POST('/api/clients/file', withFile(file)))
    said.value = `${told.taken} ${told.taken === 1 ? 'person' : 'people'} taken in.`
    left.value = told.left
  })
}
</script>

<template>
  <div class="two framed">
    <section aria-label="Clients">
      <p class="top">
        <TextField v-model="sought" aria-label="Find a client" placeholder="Find a client" />
        <FilePick accept=".vcf,.csv,text/vcard,text/csv" @chosen="bringIn"
          >Bring in a vCard or CSV file</FilePick
        >
      </p>
      <p v-if="said" role="status" class="small">{{ said }}</p>
      <p v-for="l in left" :key="l" class="small lamp">Left out: {{ l }}</p>
      <p v-if="list.isSuccess.value && !rows.length" class="quiet">
        {{
          sought ? 'Nobody of that name.' : 'No clients yet. Add one beside, or bring in a file of contacts.'
        }}
      </p>
      <div v-else class="sheet">
        <PlainTable aria-label="Clients">
          <thead>
            <tr>
              <th>Name</th>
              <th>E-mail</th>
              <th>Phone</th>
              <th>Address</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in rows" :key="c.client_id">
              <td>
                <LinkButton @click="take(c)">{{ c.name }}</LinkButton>
                <span v-if="c.note" class="quiet small note">{{ c.note }}</span>
              </td>
              <td>{{ c.email }}</td>
              <td>{{ c.phone }}</td>
              <td>{{ c.address }}</td>
              <td>
                <LinkButton class="small" :aria-label="`Delete ${c.name}`" @click="drop(c.client_id)">
                  ×
                </LinkButton>
              </td>
            </tr>
          </tbody>
        </PlainTable>
      </div>
    </section>
    <form class="sheet one" aria-label="Client" @submit.prevent="save">
      <h2>{{ at === null ? 'A new client' : 'Change a client' }}</h2>
      <label v-for="[name, label] in FIELDS" :key="name">
        {{ label }}
        <TextField
          v-model="draft[name]"
          :maxlength="name === 'email' ? 254 : 200"
          :required="name === 'name'"
        />
      </label>
      <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
      <p class="does">
        <ActButton type="submit">Save</ActButton>
        <LinkButton v-if="at !== null" class="small" @click="clear">a new one instead</LinkButton>
        <LinkButton v-if="at !== null" class="small clay" @click="erase(at, draft.name)">
          erase for good
        </LinkButton>
      </p>
    </form>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 280px;
  gap: 24px;
  align-items: start;
}
.top {
  display: flex;
  gap: 18px;
  align-items: center;
  margin-bottom: 10px;
}
.one {
  padding: 14px 16px;
  display: grid;
  gap: 8px;
}
.one label {
  display: grid;
  font-size: var(--small);
}
.note {
  display: block;
}
.does {
  display: flex;
  gap: 14px;
  align-items: center;
}
</style>
