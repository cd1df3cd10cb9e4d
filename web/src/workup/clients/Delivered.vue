<script setup lang="ts">
import { served } from '@/shared/servicePath'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { day, money } from '@/shared/format'
import CompareDeliveries from './CompareDeliveries.vue'
import DeliverCopy from './DeliverCopy.vue'
import ReaderLinks from './ReaderLinks.vue'

type Delivery = Docs['DeliveryDoc']

/** What was handed over, as it was then; messages that wait can be tried again. */
const props = defineProps<{ workupId?: number }>()
const client = useQueryClient()
const list = useQuery({
  queryKey: ['deliveries', computed(() => props.workupId)],
  queryFn: () =>
    props.workupId
      ? got(
          api.GET('/api/workups/{workup_id}/deliveries', { params: { path: { workup_id: props.workupId } } }),
        )
      : got(api.GET('/api/deliveries')),
  refetchInterval: (query) => (query.state.data?.some((d) => d.state === 'sending') ? 1000 : false),
})
const rows = computed(() => list.data.value ?? [])
const STATES: Record<string, string> = {
  by_hand: 'by hand',
  sending: 'is being sent',
  sent: 'sent',
  waiting: 'waits',
}
async function again(id: number) {
  await got(api.POST('/api/deliveries/{delivery_id}/again', { params: { path: { delivery_id: id } } }))
  await client.invalidateQueries({ queryKey: ['deliveries'] })
}
const linked = ref<number | null>(null)
const copying = ref<Delivery | null>(null)
const comparing = ref<Delivery | null>(null)
/** The other deliveries of the same home, or of the same bulletin where its records ran through another day; the newest first. */
const others = (d: Delivery) =>
  rows.value.filter((x) =>
    d.bulletin_id
      ? x.bulletin_id === d.bulletin_id && x.through !== d.through
      : x.workup_id === d.workup_id && x.delivery_id !== d.delivery_id,
  )
const paper = (id: number, form: string) => served(`/api/deliveries/${id}/paper.${form}`)
</script>

<template>
  <p v-if="list.isSuccess.value && !rows.length" class="quiet">
    Nothing has been handed over yet. In a workup’s Paper, “Hand it over” keeps a report as it is and sends
    it.
  </p>
  <div v-else class="sheet">
    <PlainTable aria-label="Delivered">
      <thead>
        <tr>
          <th>When</th>
          <th v-if="!workupId">What</th>
          <th>To</th>
          <th class="num">List price</th>
          <th class="num">Pages</th>
          <th>How</th>
          <th>As it was</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in rows" :key="d.delivery_id">
          <td class="when">{{ day(d.made_at) }}</td>
          <td v-if="!workupId">
            <router-link v-if="d.workup_id" :to="{ name: 'paper', params: { id: d.workup_id } }">{{
              d.title
            }}</router-link>
            <router-link v-else :to="{ name: 'market', query: { way: 'bulletins' } }">{{
              d.title
            }}</router-link>
            <span v-if="d.bulletin_id" class="quiet small block"
              >bulletin, records through {{ day(d.through) }}</span
            >
          </td>
          <td>
            {{ d.client || d.email || '—' }}
            <span v-if="d.email && d.client" class="quiet small block">{{ d.email }}</span>
          </td>
          <td class="num">{{ d.list_price ? money(d.list_price) : '—' }}</td>
          <td class="num">{{ d.pages }}</td>
          <td>
            <span :class="{ waits: d.state === 'waiting' }">{{ STATES[d.state] ?? d.state }}</span>
            <LinkButton v-if="d.state === 'waiting'" class="small" @click="again(d.delivery_id)">
              try again
            </LinkButton>
            <span v-if="d.said" class="small quiet block">{{ d.said }}</span>
          </td>
          <td class="papers small">
            <a class="link" :href="paper(d.delivery_id, 'pdf')" target="_blank">PDF</a>
            <a class="link" :href="paper(d.delivery_id, 'html')" download>web page</a>
            <a v-if="d.email" class="link" :href="paper(d.delivery_id, 'eml')" download>message</a>
            <a class="link" :href="paper(d.delivery_id, 'json')" download>records</a>
            <LinkButton @click="copying = d">send again</LinkButton>
            <LinkButton v-if="others(d).length" @click="comparing = d">compare</LinkButton>
            <LinkButton @click="linked = linked === d.delivery_id ? null : d.delivery_id">links</LinkButton>
            <ReaderLinks v-if="linked === d.delivery_id" :delivery="d.delivery_id" />
          </td>
        </tr>
      </tbody>
    </PlainTable>
    <DeliverCopy v-if="copying" :delivery="copying" @close="copying = null" />
    <CompareDeliveries
      v-if="comparing"
      :delivery="comparing"
      :others="others(comparing)"
      @close="comparing = null"
    />
  </div>
</template>

<style scoped>
.papers {
  white-space: nowrap;
}
.papers :is(a, button) + :is(a, button) {
  margin-left: 10px;
}
.block {
  display: block;
  max-width: 260px;
}
.when {
  white-space: nowrap;
}
.waits {
  border-left: 3px solid rgb(var(--v-theme-lamp));
  padding-left: 6px;
  margin-right: 8px;
}
td a {
  color: inherit;
}
</style>
