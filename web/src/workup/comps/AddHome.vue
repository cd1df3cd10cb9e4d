<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import HomeSearch from '@/shared/ui/HomeSearch.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, type Told } from '@/shared/api/client'
import { priced, day } from '@/shared/format'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import type { Hit } from '@/shared/useLookup'
import { useWorkup, type Candidate } from '../useWorkup'

/** A comp named by its number or address, whatever the search says. */
const emit = defineEmits<{ added: [key: string] }>()
const { id, choiceOf, decide } = useWorkup()
const client = useQueryClient()
const opened = ref(false)
const text = ref('')
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
    <div class="sheet add framed" role="dialog" aria-label="Add a home to those kept">
      <HomeSearch
        id="add-home"
        v-model="text"
        label="Listing number or address"
        :unlisted="!!records"
        @typed="records = null"
        @take="take"
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
    </div>
  </MenuBox>
</template>

<style scoped>
.add {
  width: 380px;
  padding: 12px;
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
