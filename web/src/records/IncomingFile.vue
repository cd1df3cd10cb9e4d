<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, Told, type Docs } from '@/shared/api/client'
import { number } from '@/shared/format'
import ImportPlan from './ImportPlan.vue'
import MappingTable from './mapping/MappingTable.vue'
import NamedMappings from './mapping/NamedMappings.vue'
import { useMapping } from './mapping/useMapping'
import WordsToTell from './mapping/WordsToTell.vue'
import { KIND_WORDS, KINDS, useRecords, useRecordsChanged } from './useRecords'

const props = defineProps<{ fileId: string }>()
const router = useRouter()
const client = useQueryClient()
const records = useRecords()
const changed = useRecordsChanged()
type Kind = (typeof KINDS)[number]
const kind = ref<Kind | ''>('')
const source = ref('')
const fault = ref('')
const path = computed(() => ({ file_id: props.fileId }))

const file = useQuery({
  queryKey: ['incoming', () => props.fileId],
  queryFn: () => got(api.GET('/api/records/incoming/{file_id}', { params: { path: path.value } })),
  refetchInterval: (query) =>
    ['unpacking', 'reading', 'taking in'].includes(query.state.data?.stage ?? '') ? 300 : false,
  retry: false,
})
const stage = computed(() => file.data.value?.stage ?? '')

const preview = useQuery({
  queryKey: ['preview', () => props.fileId, kind, source],
  queryFn: () =>
    got(
      api.GET('/api/records/incoming/{file_id}/preview', {
        params: { path: path.value, query: { kind: kind.value || null, source: source.value || null } },
      }),
    ),
  staleTime: Infinity,
  retry: false,
  enabled: () => !!stage.value && stage.value !== 'unpacking',
  placeholderData: (before: Docs['PreviewDoc'] | undefined) => before,
})
const mapping = useMapping(computed(() => preview.data.value))
watch(
  () => props.fileId,
  () => {
    kind.value = ''
    source.value = ''
    fault.value = ''
  },
)
watch(preview.data, (now) => {
  if (now && !source.value) source.value = now.source
})
watch(stage, (now) => {
  if (now === 'done') void changed()
})
const mapped = computed(() => !['areas', 'photos'].includes(preview.data.value?.kind ?? ''))

async function tell(asked: Promise<unknown>) {
  fault.value = ''
  try {
    await asked
    await client.invalidateQueries({ queryKey: ['incoming'] })
  } catch (error) {
    fault.value = (error as Told).message
  }
}
const plan = (places: 'swap' | 'new' | '' = '') =>
  tell(
    got(
      api.POST('/api/records/incoming/{file_id}/plan', {
        params: { path: path.value },
        body: {
          kind: (preview.data.value?.kind as Kind) ?? null,
          source: source.value,
          parts: mapped.value ? mapping.parts.value : null,
          places,
        },
      }),
    ),
  )
/** The words of the whole file once it was read, before that those of its first rows. */
const words = computed(
  () =>
    ((file.data.value?.result as { words?: Docs['WordReadDoc'][] } | null)?.words ??
      preview.data.value?.words ??
      []) as Docs['WordReadDoc'][],
)
const said = (field: string, word: string) => mapping.parts.value.find((p) => p.field === field)?.values[word]
/** Words that nobody could tell are mended in place: once all are said, the file is looked at again. */
function say(field: string, word: string, means: string) {
  mapping.word(field, word, means || word)
  const open = words.value.some((w) => !w.means && !said(w.field, w.word))
  if (stage.value === 'planned' && !open) void plan()
}

const others = useQuery({ queryKey: ['incoming'], queryFn: () => got(api.GET('/api/records/incoming')) })
const next = computed(() =>
  (others.data.value ?? []).find((f) => f.file_id !== props.fileId && f.stage !== 'done'),
)
/** A home that the file brought, to begin with: one for sale where there is one. */
const first = computed(() => {
  const brought = (file.data.value?.samples.new ?? []) as {
    key: string
    after?: Record<string, unknown>
  }[]
  const listing = preview.data.value?.kind === 'listings'
  const found =
    brought.find((r) => r.after?.standard_status === 'Active') ?? (listing ? brought[0] : undefined)
  const parcel = preview.data.value?.kind === 'parcels' ? brought[0] : undefined
  const one = listing ? found : parcel
  return one && (one.after?.unparsed_address || one.after?.latitude)
    ? {
        kind: listing ? ('listing' as const) : ('parcel' as const),
        key: one.key,
        address: String(one.after.unparsed_address ?? 'one of its homes'),
      }
    : null
})
const price = () =>
  tell(
    got(api.POST('/api/workups', { body: { kind: first.value!.kind, key: first.value!.key } })).then((made) =>
      router.push({ name: 'comps', params: { id: made.workup_id } }),
    ),
  )
const accept = () =>
  tell(got(api.POST('/api/records/incoming/{file_id}/accept', { params: { path: path.value } })))
async function letGo() {
  await tell(got(api.DELETE('/api/records/incoming/{file_id}', { params: { path: path.value } })))
  if (!fault.value) await router.push({ name: stage.value === 'done' ? 'imports' : 'records' })
}
</script>

<template>
  <div>
    <p v-if="preview.isError.value" class="lamp" role="alert">
      {{ preview.error.value?.message }}
    </p>
    <div class="head">
      <h2>{{ file.data.value?.name ?? 'File' }}</h2>
      <label>
        is
        <ChoiceField v-model="kind" aria-label="Kind of file">
          <option v-if="!kind" value="">
            {{ KIND_WORDS[preview.data.value?.kind ?? ''] ?? 'choose its kind' }}
          </option>
          <option v-for="k in KINDS" :key="k" :value="k">{{ KIND_WORDS[k] }}</option>
        </ChoiceField>
      </label>
      <label>
        from
        <TypedInput :value="source" aria-label="Source" list="sources" @typed="source = $event" />
        <datalist id="sources">
          <option v-for="s in records.data.value?.sources ?? []" :key="s.name" :value="s.name" />
        </datalist>
      </label>
      <span v-if="file.data.value?.mends" class="quiet small">
        came in as import {{ file.data.value.mends }}: what it gave and gives no more is cleared, what later
        imports said stays
      </span>
      <span v-else-if="preview.data.value?.remembered && !mapping.touched.value" class="moss small">
        mapped as last time for this source
      </span>
      <span class="spring" />
      <LinkButton v-if="stage !== 'taking in'" class="once" @click="letGo">
        {{ stage === 'done' ? 'close' : 'let it go' }}
      </LinkButton>
      <ActButton
        v-if="!['unpacking', 'reading', 'taking in', 'done'].includes(stage)"
        :disabled="!preview.data.value"
        @click="plan()"
      >
        {{ stage === 'planned' ? 'Look again' : 'See what would change' }}
      </ActButton>
      <ActButton v-if="stage === 'planned'" strong @click="accept">Take it in</ActButton>
    </div>
    <p v-if="fault" class="lamp mt-3" role="alert">{{ fault }}</p>
    <p v-if="stage === 'failed'" class="lamp mt-3" role="alert">{{ file.data.value?.message }}</p>
    <p v-if="stage === 'unpacking'" class="mt-3" role="status">
      Unpacking: {{ file.data.value?.message }}. You can leave, or let it go.
    </p>
    <p v-if="stage === 'reading'" class="mt-3" role="status">
      Reading: {{ number(file.data.value?.rows ?? 0) }} rows so far. You can leave; it goes on.
    </p>
    <p v-if="stage === 'taking in'" class="mt-3" role="status">Taking it in …</p>
    <p v-if="stage === 'done'" class="next mt-3">
      <ActButton v-if="first" strong @click="price">Price {{ first.address }}</ActButton>
      <router-link v-if="next" :to="{ name: 'incoming', params: { fileId: next.file_id } }">
        Next: {{ next.name }}
      </router-link>
    </p>
    <WordsToTell
      v-if="mapped && words.length && !['taking in', 'done'].includes(stage)"
      :words="words"
      :statuses="preview.data.value?.statuses ?? []"
      :home-kinds="preview.data.value?.home_kinds ?? []"
      :said="said"
      class="mt-3"
      @word="say"
    />
    <ImportPlan
      v-if="file.data.value?.result && ['planned', 'taking in', 'done'].includes(stage)"
      :result="file.data.value.result"
      :samples="file.data.value.samples"
      :done="stage === 'done'"
      class="mt-3"
      @places="plan($event)"
    />
    <NamedMappings
      v-if="preview.data.value && mapped && !['taking in', 'done'].includes(stage)"
      :kind="preview.data.value.kind as Kind"
      :columns="preview.data.value.columns.map((c) => c.name)"
      :proposed="preview.data.value.parts"
      :mapping="mapping"
      class="mt-4"
    />
    <MappingTable
      v-if="preview.data.value && mapped && !['taking in', 'done'].includes(stage)"
      :preview="preview.data.value"
      :mapping="mapping"
      class="mt-2"
    />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 14px;
}
.head select,
.head input {
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
  background: rgb(var(--v-theme-surface));
  color: inherit;
}
.head input {
  width: 190px;
}
.next {
  display: flex;
  align-items: center;
  gap: 18px;
}
.spring {
  flex: 1;
}
.once {
  white-space: nowrap;
}
</style>
