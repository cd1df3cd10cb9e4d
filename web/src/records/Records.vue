<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { day, number } from '@/shared/format'

const records = useQuery({ queryKey: ['records'], queryFn: () => got(api.GET('/api/records')), staleTime: 0 })
const opened = ref<number | null>(null)
const rows = useQuery({
  queryKey: ['reported', opened],
  queryFn: () =>
    got(
      api.GET('/api/records/imports/{import_id}/rows', {
        params: { path: { import_id: opened.value as number } },
      }),
    ) as Promise<{ row_number: number; outcome: string; reasons: string[]; original: string }[]>,
  enabled: () => opened.value !== null,
})
</script>

<template>
  <div class="records">
    <h1>Records</h1>
    <p v-if="records.isError.value" class="lamp mt-4" role="alert">{{ records.error.value?.message }}</p>
    <template v-else-if="records.data.value">
      <p class="mt-2">
        <template v-if="records.data.value.through">
          They run through <b>{{ day(records.data.value.through) }}</b>:
          <template v-for="(n, kind, i) in records.data.value.counts" :key="kind">
            <template v-if="n">{{ i ? ', ' : '' }}{{ number(n) }} {{ kind }}</template> </template
          >.
        </template>
        <template v-else>
          Nothing has been brought in yet. Run <code>rain-porch import FILE</code> with a CSV, JSON or GeoJSON
          file.
        </template>
      </p>
      <div v-if="records.data.value.imports.length" class="sheet mt-5">
        <table class="plain" aria-label="Imports">
          <thead>
            <tr>
              <th>File</th>
              <th>Kind</th>
              <th>When</th>
              <th class="num">Rows</th>
              <th class="num">New</th>
              <th class="num">Changed</th>
              <th class="num">Same</th>
              <th class="num">Suspect</th>
              <th class="num">Rejected</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="x in records.data.value.imports"
              :key="x.import_id"
              :class="{ at: opened === x.import_id }"
            >
              <td>{{ x.file_name }}</td>
              <td>{{ x.kind }}</td>
              <td>{{ day(x.finished_at) }}</td>
              <td class="num">{{ number(x.rows) }}</td>
              <td class="num">{{ number(x.new) }}</td>
              <td class="num">{{ number(x.changed) }}</td>
              <td class="num">{{ number(x.same) }}</td>
              <td class="num">{{ number(x.suspect) }}</td>
              <td class="num">{{ number(x.rejected) }}</td>
              <td>
                <button
                  v-if="Object.keys(x.reasons).length"
                  type="button"
                  class="link"
                  @click="opened = opened === x.import_id ? null : x.import_id"
                >
                  {{ opened === x.import_id ? 'close' : 'what was wrong' }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <section v-if="opened !== null" class="mt-5">
        <h2 class="mb-2">Rows to look at</h2>
        <div class="sheet rows">
          <table class="plain">
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
                <td>{{ r.reasons.join('; ') }}</td>
                <td class="original quiet small">{{ r.original }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </template>
    <p v-else class="quiet mt-4">Reading …</p>
  </div>
</template>

<style scoped>
.records {
  padding: 24px 32px;
  max-width: 1240px;
}
.rows {
  max-height: 46vh;
  overflow: auto;
}
.original {
  max-width: 620px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.at td {
  background: rgb(var(--v-theme-mist));
}
</style>
