<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LookupList from '@/shared/ui/LookupList.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TextField from '@/shared/ui/TextField.vue'
import { vFocus } from '@/shared/vFocus'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Told } from '@/shared/api/client'
import { priced, day } from '@/shared/format'
import Mark from '@/shared/Mark.vue'
import { KIND_WORDS } from '@/shared/marks'
import { useLookup, type Hit } from '@/shared/useLookup'
import { useWorkup, type Candidate } from '../useWorkup'

/** A comp named by its number or address, whatever the search says. */
const emit = defineEmits<{ added: [key: string] }>()
const { id, choiceOf, decide } = useWorkup()
const client = useQueryClient()
const opened = ref(false)
const text = ref('')
const at = ref(0)
const { hits, nearest, nothing } = useLookup(text)
const homes = computed(() =>
  (hits.value.length ? hits.value : nearest.value).filter((h) => h.kind === 'parcel' || h.kind === 'listing'),
)
const records = ref<Candidate[] | null>(null)
const fault = ref('')
async function take(hit: Hit) {
  fault.value = ''
  records.value = null
  try {
    const found = await got(
      api.GET('/api/workups/{workup_id}/of-home', {
        params: {
          path: { workup_id: id.value },
          query: { kind: hit.kind as 'parcel' | 'listing', key: hit.key },
        },
      }),
    )
    // a number names one record: that one is meant
    const named = found.find((c) => c.listing_id.toLowerCase() === text.value.trim().toLowerCase())
    if (named) void keep(named)
    else if (found.length) records.value = found
    else fault.value = `${hit.shown} has no sale and no listing in the records by this workup’s date.`
  } catch (error) {
    fault.value = (error as Told).message
  }
}
async function keep(home: Candidate) {
  if (!(await decide([home.listing_id], 'kept'))) return
  await client.invalidateQueries({ queryKey: ['candidates', id.value] }) // it stands among the rows, found or not
  opened.value = false
  emit('added', home.listing_id)
}
function start(now: boolean) {
  opened.value = now
  text.value = ''
  fault.value = ''
  records.value = null
}
function key(event: KeyboardEvent) {
  const last = homes.value.length - 1
  if (event.key === 'ArrowDown') at.value = Math.min(at.value + 1, last)
  else if (event.key === 'ArrowUp') at.value = Math.max(at.value - 1, 0)
  else if (event.key === 'Enter' && homes.value[at.value]) void take(homes.value[at.value]!)
  else return
  event.preventDefault()
}
</script>

<template>
  <MenuBox :model-value="opened" location="bottom start" @update:model-value="start($event ?? false)">
    <template #press="{ props: activator }">
      <ActButton
        v-bind="activator"
        title="A home by its listing number or address, whatever the search says"
        plain
      >
        Add a home
      </ActButton>
    </template>
    <div class="sheet add" role="dialog" aria-label="Add a home to the comps">
      <TextField
        v-model="text"
        v-focus
        autocomplete="off"
        aria-label="Listing number or address"
        placeholder="Listing number or address"
        @input="((records = null), (at = 0))"
        @keydown="key"
      />
      <p v-if="fault" class="clay small mt-2" role="alert">{{ fault }}</p>
      <template v-if="records">
        <p class="quiet small mt-2">{{ records[0]!.address }}: which of its records?</p>
        <PressArea v-for="r in records" :key="r.listing_id" class="record" @click="keep(r)">
          <Mark :kind="r.kind" :choice="choiceOf(r.listing_id)" />
          <span>{{ KIND_WORDS[r.kind] ?? r.kind }} {{ day(r.date) }}</span>
          <b>{{ priced(r.price) }}</b>
          <span class="link">{{ choiceOf(r.listing_id) === 'kept' ? 'kept' : 'keep' }}</span>
        </PressArea>
      </template>
      <LookupList
        v-else-if="text.trim().length > 1"
        id="add-home"
        plain
        :hits="homes"
        :nearest="[]"
        :nothing="nothing && !homes.length"
        :at="at"
        :text="text"
        @open="take"
      />
    </div>
  </MenuBox>
</template>

<style scoped>
.add {
  width: 380px;
  padding: 12px;
}
input {
  width: 100%;
  padding: 7px 10px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
.record {
  display: grid;
  grid-template-columns: 26px 1fr auto 40px;
  gap: 8px;
  align-items: center;
  width: 100%;
  padding: 4px 6px;
  text-align: left;
  border-radius: var(--corner);
  cursor: pointer;
}
.record:hover,
.record:focus-visible {
  background: rgb(var(--v-theme-mist));
}
</style>
