<script setup lang="ts">
import { served } from '@/shared/servicePath'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { useSession } from '@/session/useSession'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, Told } from '@/shared/api/client'
import { day, number } from '@/shared/format'
import { useFieldWords } from '@/shared/useFieldWords'
import RowInWords from './RowInWords.vue'
import { NUMBERS, useRecords } from './useRecords'
import { useUndo } from './useUndo'

const { mayImport } = useSession()
const router = useRouter()
const records = useRecords()
const { reason, asItStood } = useFieldWords()
const opened = ref<number | null>(null)
const asking = ref<number | null>(null)
const { undo, stop, isUnderWay, howFar, said, fault } = useUndo()
const rows = useQuery({
  queryKey: ['reported', opened],
  queryFn: () =>
    got(
      api.GET('/api/records/imports/{import_id}/rows', {
        params: { path: { import_id: opened.value as number } },
      }),
    ),
  enabled: () => opened.value !== null,
})
function takeBack(importId: number) {
  asking.value = null
  void undo(importId)
}
/** The kept file waits again, with the mapping it had, to be mended. */
async function mend(importId: number) {
  fault.value = ''
  try {
    const file = await got(
      api.POST('/api/records/imports/{import_id}/mend', { params: { path: { import_id: importId } } }),
    )
    await router.push({ name: 'incoming', params: { fileId: file.file_id } })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
const why = (x: { reasons: Record<string, number> }) =>
  Object.entries(x.reasons)
    .slice(0, 3)
    .map(([why, n]) => `${number(n)} × ${reason(why)}`)
    .join(' · ')
</script>

<template>
  <div v-if="records.data.value">
    <p v-if="said" class="moss mb-2" role="status">{{ said }}</p>
    <p v-if="fault" class="lamp mb-2" role="alert">{{ fault }}</p>
    <div class="sheet">
      <PlainTable aria-label="Imports">
        <thead>
          <tr>
            <th>File</th>
            <th>Kind</th>
            <th>When</th>
            <th class="num">Rows</th>
            <th v-for="n in NUMBERS" :key="n" class="num">{{ n[0]!.toUpperCase() + n.slice(1) }}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="x in records.data.value.imports"
            :key="x.import_id"
            :class="{ at: opened === x.import_id, undone: x.undone_at }"
          >
            <td>
              {{ x.file_name }}
              <div v-if="Object.keys(x.reasons).length" class="quiet small">{{ why(x) }}</div>
            </td>
            <td>{{ x.kind }}</td>
            <td class="when">{{ day(x.finished_at) }}</td>
            <td class="num">{{ number(x.rows) }}</td>
            <td v-for="n in NUMBERS" :key="n" class="num" :class="{ none: !x[n] }">{{ number(x[n]) }}</td>
            <td class="do-cell">
              <span v-if="x.undone_at" class="quiet small">undone {{ day(x.undone_at) }}</span>
              <template v-else-if="isUnderWay(x.import_id)">
                <span class="small" role="status">{{ howFar(x.import_id) }}</span>
                <LinkButton @click="stop(x.import_id)">stop</LinkButton>
              </template>
              <template v-else-if="asking === x.import_id">
                <span class="small">Take it all back?</span>
                <LinkButton @click="takeBack(x.import_id)">yes, undo</LinkButton>
                <LinkButton @click="asking = null">no</LinkButton>
              </template>
              <template v-else>
                <LinkButton
                  v-if="x.rejected || x.suspect || Object.keys(x.reasons).length"
                  @click="opened = opened === x.import_id ? null : x.import_id"
                >
                  {{ opened === x.import_id ? 'close' : 'what was wrong' }}
                </LinkButton>
                <LinkButton
                  v-if="mayImport && x.kept"
                  title="Say anew what its columns are, without bringing the file in again"
                  @click="mend(x.import_id)"
                >
                  mend its mapping
                </LinkButton>
                <LinkButton v-if="mayImport" @click="asking = x.import_id">undo</LinkButton>
              </template>
            </td>
          </tr>
          <tr v-if="!records.data.value.imports.length">
            <td colspan="10" class="quiet">Nothing has been brought in yet.</td>
          </tr>
        </tbody>
      </PlainTable>
    </div>
    <section v-if="opened !== null" class="mt-5">
      <h2 class="mb-2">
        Rows to look at
        <a
          v-if="records.data.value.imports.find((x) => x.import_id === opened)?.rejected"
          class="small link"
          :href="served(`/api/records/imports/${opened}/rejects.csv`)"
          download
          >download the rejected rows to mend them</a
        >
      </h2>
      <div class="sheet rows">
        <PlainTable aria-label="Rows to look at">
          <thead>
            <tr>
              <th class="num">Row</th>
              <th>Outcome</th>
              <th>Why</th>
              <th>As it stood</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows.data.value ?? []" :key="r.row_number">
              <td class="num">{{ number(r.row_number) }}</td>
              <td>{{ r.outcome }}</td>
              <td>{{ r.reasons.map(reason).join('; ') }}</td>
              <td class="original"><RowInWords :words="asItStood(r.original)" /></td>
            </tr>
          </tbody>
        </PlainTable>
      </div>
    </section>
  </div>
  <p v-else class="quiet">Reading …</p>
</template>

<style scoped>
.rows {
  max-height: 46vh;
  overflow: auto;
}
.original {
  max-width: 560px;
}
.when {
  white-space: nowrap;
}
.none {
  opacity: 0.4;
}
.undone td {
  text-decoration: line-through;
  opacity: 0.6;
}
.undone .do-cell {
  text-decoration: none;
}
.do-cell {
  white-space: nowrap;
  text-align: right;
}
.do-cell .link {
  margin-left: 12px;
}
.at td {
  background: rgb(var(--v-theme-mist));
}
</style>
