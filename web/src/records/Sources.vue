<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { ref } from 'vue'
import { api, got, Told, type Docs } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import { RHYTHMS, rhythmOf } from '@/shared/rhythms'
import WatchedFolder from './WatchedFolder.vue'
import { useSession } from '@/session/useSession'
import { KIND_WORDS, useRecords, useRecordsChanged } from './useRecords'

const records = useRecords()
const { mayImport } = useSession()
const changed = useRecordsChanged()
const address = ref('http://127.0.0.1:8041')
const token = ref('')
const again = ref('')
const AGAIN: [string, string][] = [
  ['', 'only now'],
  ...Object.entries(RHYTHMS).map(([minutes, words]): [string, string] => [minutes, `now and ${words}`]),
]
const pulling = ref(false)
const said = ref('')
const fault = ref('')
async function pull() {
  pulling.value = true
  said.value = fault.value = ''
  try {
    const done: Docs['ImportDoc'] = await got(
      api.POST('/api/records/feed', {
        body: {
          address: address.value,
          token: token.value,
          again_every: rhythmOf(again.value),
        },
      }),
    )
    said.value = `${number(done.rows)} listings came: ${number(done.new)} new, ${number(done.changed)} changed, ${number(done.same)} the same.${(done.notes ?? []).map((note) => ` ${note}.`).join('')}${again.value ? ' When it is pulled again stands under Settings, Work that waits.' : ''}`
    await changed()
  } catch (error) {
    fault.value = (error as Told).message
  } finally {
    pulling.value = false
  }
}
const OUT: [string, string[]][] = [
  ['listings', ['csv', 'json', 'xlsx', 'geojson']],
  ['parcels', ['csv', 'json', 'xlsx', 'geojson']],
  ['transfers', ['csv', 'json', 'xlsx']],
  ['assessments', ['csv', 'json', 'xlsx']],
  ['history', ['csv', 'json', 'xlsx']],
  ['series', ['csv', 'json', 'xlsx']],
  ['areas', ['geojson']],
]
</script>

<template>
  <div v-if="records.data.value" class="parts">
    <section>
      <div class="sheet">
        <PlainTable aria-label="Sources">
          <thead>
            <tr>
              <th>Source</th>
              <th>Brings</th>
              <th>Last brought in</th>
              <th class="num">Imports</th>
              <th class="num">Listings</th>
              <th>Newest event</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in records.data.value.sources" :key="s.name">
              <td>{{ s.name }}</td>
              <td class="quiet">
                {{
                  (s.kinds ?? '')
                    .split(',')
                    .map((k) => KIND_WORDS[k] ?? k)
                    .join(', ')
                }}
              </td>
              <td>{{ s.last_import ? day(s.last_import) : '' }}</td>
              <td class="num">{{ number(s.imports) }}</td>
              <td class="num">{{ s.listings ? number(s.listings) : '' }}</td>
              <td>{{ s.through ? day(s.through) : '' }}</td>
            </tr>
            <tr v-if="!records.data.value.sources.length">
              <td colspan="6" class="quiet">
                No source yet. Drop a file above; its name becomes the source’s.
              </td>
            </tr>
          </tbody>
        </PlainTable>
      </div>
    </section>
    <aside>
      <form v-if="mayImport" class="sheet side-sheet framed" @submit.prevent="pull">
        <h2>Feed</h2>
        <p class="quiet small">
          A server of listings as JSON pages (RESO Web API). Only what changed since the last pull is fetched.
        </p>
        <label>Address <TextField v-model="address" type="url" required /></label>
        <label>Token <TextField v-model="token" type="password" autocomplete="off" /></label>
        <label>
          Pull it
          <ChoiceField v-model="again">
            <option v-for="[minutes, words] in AGAIN" :key="minutes" :value="minutes">{{ words }}</option>
          </ChoiceField>
        </label>
        <ActButton type="submit" :disabled="pulling">
          {{ pulling ? 'Pulling …' : 'Pull what is new' }}
        </ActButton>
        <p v-if="said" class="moss small" role="status">{{ said }}</p>
        <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
        <p v-for="f in records.data.value.feeds" :key="f.address" class="quiet small">
          {{ f.address }}: read to {{ f.read_to ? day(f.read_to) : 'nothing yet'
          }}{{ f.broken_off ? ', broken off: pull again to go on' : '' }}
        </p>
      </form>
      <WatchedFolder v-if="mayImport" :inbox="records.data.value.inbox" :rhythms="AGAIN" />
      <div class="sheet side-sheet">
        <h2>Out again</h2>
        <p class="quiet small">CSV, JSON and GeoJSON are just what the import reads.</p>
        <p v-for="[kind, ways] in OUT" :key="kind" class="out">
          <span>{{ kind }}</span>
          <a
            v-for="w in ways"
            :key="w"
            class="link"
            :href="served(`/api/records/export/${kind}.${w}`)"
            download
            >{{ w.toUpperCase() }}</a
          >
        </p>
      </div>
    </aside>
  </div>
  <p v-else class="quiet">Reading …</p>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 24px;
  align-items: start;
}
aside {
  display: grid;
  gap: 16px;
  min-width: 0;
}
.out {
  display: grid;
  grid-template-columns: 74px 32px 38px 36px minmax(0, 1fr);
  gap: 6px;
  font-size: var(--small);
}
.do {
  justify-self: start;
}
</style>
