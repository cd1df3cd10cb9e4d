<script setup lang="ts">
import { later } from '@/shared/useReaching'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { day, money } from '@/shared/format'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { useWorkup } from '../useWorkup'
import FactTable from './FactTable.vue'
import Improvements from './Improvements.vue'
import LiesAround from './LiesAround.vue'
import OwnFeatures from './OwnFeatures.vue'
import OwnPhotos from './OwnPhotos.vue'
import TimeLine from './TimeLine.vue'

const HomeMap = later(() => import('@/shared/map/HomeMap.vue'))
const { id, open, state, send } = useWorkup()
const around = useQuery({
  queryKey: ['workup', id, 'around', computed(() => open.data.value?.revision)],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/around', { params: { path: { workup_id: id.value } } })),
  placeholderData: keepPreviousData,
})
const moving = ref(false)
const own = ref<InstanceType<typeof OwnFeatures>>()
const corner = computed(() => around.data.value?.corner ?? [])
const near = computed(() => (around.data.value?.near ?? []).filter((n) => n.feet <= 1500).slice(0, 6))
async function moveHome(latitude: number, longitude: number) {
  moving.value = false
  await send({ change: 'set_place', place: [longitude, latitude] })
}
const past = computed(() => open.data.value?.past ?? [])
</script>

<template>
  <div class="home">
    <FactTable />
    <section class="side">
      <h2 class="mb-2">Where it stands</h2>
      <div class="map sheet">
        <HomeMap
          v-if="open.data.value"
          :subject="open.data.value.subject"
          :candidates="[]"
          :zoom="16.2"
          :movable="moving"
          @home="moveHome"
        />
      </div>
      <p class="small mt-1 under">
        <LinkButton :aria-pressed="moving" @click="moving = !moving">
          {{
            moving
              ? 'Click where it stands, drag the house there, or press N on the map and the arrows'
              : 'Not here? Move it'
          }}
        </LinkButton>
        <LinkButton v-if="state?.place" @click="send({ change: 'set_place', place: null })">
          back to the records’ place
        </LinkButton>
      </p>
      <LiesAround :corner="corner" :near="near" @bears="own?.add($event)" />
      <h2 class="mt-5 mb-2">Its story</h2>
      <TimeLine :past="past" />
      <PlainTable v-if="past.length">
        <tbody>
          <tr v-for="(event, i) in past" :key="i">
            <td class="when">{{ day(event.date) }}</td>
            <td>
              <b class="what">{{ event.what }}</b> <span class="quiet small">{{ event.note }}</span>
            </td>
            <td class="num">
              {{ event.price === null ? '' : money(event.price) }}{{ event.per ? ` a ${event.per}` : '' }}
            </td>
          </tr>
        </tbody>
      </PlainTable>
      <p v-else class="quiet">The records hold no listing and no deed of this home.</p>
      <OwnFeatures ref="own" />
      <Improvements :around="around.data.value" />
      <OwnPhotos />
    </section>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 26px;
  padding: 18px 24px 28px;
}
.map {
  height: 270px;
  overflow: hidden;
}
.under {
  display: flex;
  justify-content: space-between;
}
.what::first-letter {
  text-transform: uppercase;
}
.when {
  white-space: nowrap;
}
@media (max-width: 820px) {
  .home {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
