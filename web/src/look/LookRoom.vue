<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { served } from '@/shared/servicePath'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, type Told } from '@/shared/api/client'
import { fact, offeredAt, sizedWords } from '@/shared/format'
import FindingRoom from '@/finding/FindingRoom.vue'
import { provideChoosing } from '@/finding/useChoosing'
import { provideFinding, type Candidate } from '@/finding/useFinding'
import GiveHome from './GiveHome.vue'
import LookPapers from './LookPapers.vue'
import { useLook } from './useLook'

/** A search with nothing kept: around a home, a place, in an outline, or anywhere; and the ways on from it. */
const { finding, found, home, place, search, ticked, whole } = useLook()
const choosing = provideChoosing(provideFinding(finding))
const router = useRouter()
const facts = computed(() => found.data.value?.subject.facts ?? {})
const asks = computed(() => found.data.value?.asks ?? {})
const room = ref<InstanceType<typeof FindingRoom>>()
const failed = ref('')
async function begin(named: { kind: 'parcel' | 'listing'; key: string }) {
  failed.value = ''
  try {
    const made = await got(api.POST('/api/around/workup', { body: { home: named, look: whole() } }))
    await router.push({ name: 'comps', params: { id: made.workup_id } })
  } catch (error) {
    failed.value = (error as Told).message
  }
}
const ofThis = (row: Candidate) => begin({ kind: 'listing', key: row.listing_id })
const aroundThis = (row: Candidate) =>
  router.push({ name: 'around', query: { kind: 'listing', key: row.listing_id } })
/** The market of this very place: the search's outlines and areas, else the circle around what is looked from. */
const market = computed(() => {
  const now = search.value
  const at = found.data.value?.subject
  if (!now || !at) return '/market'
  const from = home.value || place.value
  const circle =
    from && now.radius_miles && !now.shapes.length
      ? [{ points: [[at.longitude, at.latitude]], radius_miles: now.radius_miles, inside: true, name: '' }]
      : []
  const shapes = now.shapes.length ? now.shapes : circle
  const view = {
    measures: ['median_price', 'closings'],
    home_kind: now.home_kinds.length === 1 ? now.home_kinds[0] : '',
    by: 'quarter',
    places: now.areas,
    shapes,
    drawn: shapes.length
      ? circle.length
        ? `within ${now.radius_miles} mi of ${home.value ? found.data.value!.title : 'the place'}`
        : 'in what was drawn'
      : '',
  }
  return `/market?view=${encodeURIComponent(JSON.stringify(view))}`
})
</script>

<template>
  <div class="look">
    <header>
      <img v-if="finding.home.value?.picture" :src="served(finding.home.value.picture)" alt="" />
      <div class="title">
        <h1>{{ found.data.value?.title ?? (home ? '…' : 'Homes by search') }}</h1>
        <p v-if="home && found.data.value" class="quiet facts">
          <span v-if="facts.bedrooms_total">{{ facts.bedrooms_total }} bd</span>
          <span v-if="facts.bathrooms_full">{{ facts.bathrooms_full }} full</span>
          <span v-if="facts.living_area">{{ sizedWords(facts.living_area as number, 'sq ft') }}</span>
          <span v-if="facts.year_built">built {{ fact(facts.year_built, 'year') }}</span>
          <b v-if="asks.list_price" class="cedar">{{ offeredAt(asks) }}</b>
        </p>
        <p v-if="found.data.value?.loosened.length" class="quiet small">
          Loosened to find enough: {{ found.data.value.loosened.join(', ') }}.
        </p>
      </div>
      <div class="on">
        <LookPapers
          v-if="found.data.value"
          :whole="whole"
          :order="() => room?.shown.map((c) => c.listing_id) ?? []"
          :ticked="ticked.length"
          :found="found.data.value"
        />
        <router-link class="link small" :to="market">the market here</router-link>
        <GiveHome v-if="!home" />
        <ActButton v-if="home" strong @click="begin(home)">Make it a workup</ActButton>
      </div>
    </header>
    <p v-if="failed" class="lamp" role="alert">{{ failed }}</p>
    <p v-if="found.isError.value" class="lamp" role="alert">{{ (found.error.value as Told).message }}</p>
    <div class="room">
      <!-- another home is another look: nothing of the one before stays open -->
      <FindingRoom
        ref="room"
        :key="JSON.stringify([home, place])"
        :choosing="choosing"
        :sorted-by="home ? 'likeness' : 'date'"
      >
        <template #of-home="{ home: row }">
          <span class="ways-on">
            <LinkButton title="What sold around it" class="small" @click="aroundThis(row)"
              >around it</LinkButton
            >
            <ActButton
              :title="ticked.length ? 'A workup of this home, the ticked ones kept' : 'A workup of this home'"
              @click="ofThis(row)"
            >
              Workup of this home
            </ActButton>
          </span>
        </template>
      </FindingRoom>
    </div>
  </div>
</template>

<style scoped>
.look {
  display: flex;
  flex-direction: column;
  height: 100%;
  background: rgb(var(--v-theme-surface));
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  padding: 10px 18px;
  border-bottom: var(--line);
}
header img {
  width: 76px;
  height: 50px;
  object-fit: cover;
  border-radius: var(--corner);
}
.title {
  flex: 1;
  min-width: 200px;
}
.facts,
.on,
.ways-on {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
.room {
  flex: 1;
  min-height: 0;
}
.lamp {
  margin: 8px 18px;
}
/* where there is little height, one part lies below the other and the page is scrolled */
@media (max-height: 560px) {
  .look {
    height: auto;
    min-height: 100%;
  }
}
@media (max-width: 700px) {
  header {
    gap: 2px 12px;
    padding: 6px 12px;
  }
  header img {
    display: none;
  }
  h1 {
    font-size: var(--title-s);
  }
}
</style>
