<script setup lang="ts">
import { later } from '@/shared/useReaching'
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { mdiAccountMultipleOutline, mdiUndo } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, toRef } from 'vue'
import { baths, counted, offeredAt, priced, lotWords, sizedWords } from '@/shared/format'
import type { Told } from '@/shared/api/client'
import { isTyping } from '@/shared/keys/keys'
import { useSession } from '@/session/useSession'
import PriceRail from './PriceRail.vue'
import Since from './Since.vue'
import { provideWorkup } from './useWorkup'

const props = defineProps<{ id: number }>()
const workup = provideWorkup(toRef(props, 'id'))
const { open, found, worth, state, said, saving, waiting, away, elsewhere } = workup
const { refused, questioned, insist, undo, kept } = workup

const ShareWorkup = later(() => import('./ShareWorkup.vue'))
const { session, isManager } = useSession()
const sharing = ref(false)
/** Whose it is, where it is a colleague's. */
const whose = computed(() => open.data.value?.whose)
const gone = computed(
  () => open.isError.value && (!open.data.value || (open.error.value as Told).status === 404),
)
const saves = computed(() => {
  if (saving.value) return 'Saving …'
  if (said.value) return `Saved: ${said.value}`
  if (elsewhere.value) return elsewhere.value
  return open.data.value?.may_edit === false
    ? 'Nothing that you change here is kept'
    : 'Everything saves by itself'
})
const mayShare = computed(() => !session.data.value?.by_itself && (!whose.value || isManager.value))

const facts = computed(() => open.data.value?.subject.facts ?? {})
const rooms = computed(() => {
  const corrected = Object.keys(state.value?.corrections ?? {}).length
  const counts = found.data.value?.counts
  const total = counts ? Object.values(counts).reduce((a, b) => a + b, 0) : null
  const value = worth.data.value?.price.indicated_value
  const list = state.value?.list_price
  return [
    { name: 'home', label: 'Home', says: corrected ? `${corrected} corrected` : 'as recorded' },
    { name: 'comps', label: 'Comps', says: total === null ? '…' : `${total} found, ${kept.value} kept` },
    {
      name: 'worth',
      label: 'Worth',
      says: value
        ? `${priced(value)}${list ? `, list ${priced(list)}` : ''}`
        : list
          ? `list ${priced(list)}`
          : 'no sale kept',
    },
    { name: 'paper', label: 'Paper', says: `${state.value?.paper?.pages.length ?? 3} pages` },
  ]
})

/** The market of this kind of home, within the search's radius of it. */
const marketAround = computed(() => {
  const subject = open.data.value?.subject
  if (!subject) return '/market'
  const miles = state.value?.search.radius_miles ?? 1
  const view = {
    measures: ['median_price', 'months_of_supply'],
    home_kind: subject.home_kind === 'unknown' ? '' : subject.home_kind,
    by: 'quarter',
    shapes: [
      { points: [[subject.longitude, subject.latitude]], radius_miles: miles, inside: true, name: '' },
    ],
    drawn: `within ${miles} mi of ${state.value?.address}`,
  }
  const area = subject.facts.living_area
  const price = state.value?.list_price ?? worth.data.value?.price.indicated_value
  return {
    name: 'market',
    query: {
      view: JSON.stringify(view),
      ...(area ? { area: String(area) } : {}),
      ...(price ? { price: String(Math.round(Number(price))) } : {}),
    },
  }
})

function key(event: KeyboardEvent) {
  const z = event.key.toLowerCase() === 'z'
  if (isTyping(event) || !z || event.shiftKey || event.altKey) return
  event.preventDefault()
  void undo()
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
</script>

<template>
  <div v-if="gone" class="pa-8">
    <h1 class="mb-3">This workup cannot be opened</h1>
    <p class="lamp" role="alert">{{ open.error.value?.message }}</p>
    <p class="mt-4"><router-link to="/workups">To the list of workups</router-link></p>
  </div>
  <div v-else-if="!open.data.value" class="pa-8 quiet">Opening …</div>
  <div v-else class="workup">
    <header class="strip">
      <img
        v-if="open.data.value.picture"
        :src="served(open.data.value.picture)"
        alt="Front of the home"
        class="front"
      />
      <div class="who">
        <h1>{{ open.data.value.state.address }}</h1>
        <p class="facts">
          <span v-if="facts.bedrooms_total">{{ facts.bedrooms_total }} bd</span>
          <span v-if="facts.bathrooms_full">{{ baths(facts.bathrooms_full, facts.bathrooms_half) }}</span>
          <span v-if="facts.living_area">{{ sizedWords(facts.living_area as number, 'sq ft') }}</span>
          <span v-if="facts.lot_size_square_feet">
            {{ lotWords(facts.lot_size_square_feet as number) }}
          </span>
          <span v-if="facts.year_built">built {{ facts.year_built }}</span>
          <span>{{ open.data.value.subject.home_kind.replaceAll('_', ' ') }}</span>
          <span v-if="open.data.value.asks.list_price" class="cedar asks">{{
            offeredAt(open.data.value.asks)
          }}</span>
          <router-link class="link small around" :to="marketAround">the market around it</router-link>
        </p>
      </div>
      <div class="saved small quiet">
        <p>
          <span v-if="whose" class="whose">
            {{ whose }}’s workup{{ open.data.value.may_edit ? '' : ', to read' }}
          </span>
          <IconButton
            v-if="mayShare"
            :icon="mdiAccountMultipleOutline"
            size="x-small"
            name="Share with colleagues, or hand over"
            @click="sharing = true"
          />
          <Since />
        </p>
        <p aria-live="polite">
          {{ saves }}
          <IconButton
            :icon="mdiUndo"
            size="x-small"
            :disabled="open.data.value.revision < 2"
            name="Undo the last change"
            :title="`Undo: ${open.data.value.last_change} (Z)`"
            @click="undo()"
          />
        </p>
      </div>
    </header>
    <p v-if="away" class="lamp refused" role="alert">
      Rain Porch does not answer. {{ counted(waiting, 'change') }} {{ waiting === 1 ? 'waits' : 'wait' }} here
      and {{ waiting === 1 ? 'goes' : 'go' }} out when it does.
    </p>
    <p v-else-if="refused" class="lamp refused" role="alert">
      {{ refused.message }}
      <template v-if="questioned">
        <ActButton @click="insist()">{{ refused.clash ? 'Mine instead' : 'Yes, it is so' }}</ActButton>
        <LinkButton @click="((refused = null), (questioned = null))">{{
          refused.clash ? 'Leave it' : 'No'
        }}</LinkButton>
      </template>
    </p>
    <nav class="stair" aria-label="Rooms of the workup">
      <router-link
        v-for="(room, i) in rooms"
        :key="room.name"
        :to="{ name: room.name, params: { id } }"
        class="step"
        :style="{ marginLeft: `${i * 7}px` }"
      >
        <b>{{ room.label }}</b>
        <span class="small">{{ room.says }}</span>
      </router-link>
    </nav>
    <section class="inside"><router-view /></section>
    <PriceRail class="rail" />
    <ShareWorkup v-if="sharing" @close="sharing = false" />
  </div>
</template>

<style scoped>
.workup {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  height: 100%;
}
.strip {
  grid-column: 1 / 3;
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 8px 20px;
  background: rgb(var(--v-theme-surface));
  border-bottom: var(--line);
}
.front {
  height: 46px;
  border-radius: var(--corner);
  margin-right: 14px;
}
.who {
  flex: 1;
}
.strip h1 {
  font-size: var(--title);
}
.facts .asks {
  white-space: nowrap;
}
.facts span + span::before {
  content: '·';
  margin: 0 7px;
  color: rgb(var(--v-theme-quiet));
}
.around {
  margin-left: 16px;
}
.saved {
  text-align: right;
}
.whose {
  margin-right: 12px;
  font-weight: 600;
  color: rgb(var(--v-theme-slate));
}
.refused {
  grid-column: 1 / 3;
  margin: 6px 16px 0;
}
.stair {
  grid-row: 3;
  padding: 16px 0 0 10px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.step {
  display: flex;
  flex-direction: column;
  padding: 8px 8px 9px 12px;
  color: rgb(var(--v-theme-quiet));
  text-decoration: none;
  border-radius: 6px 0 0 6px;
  border: 1px solid transparent;
  border-right: 0;
}
.step b {
  font-weight: 600;
  font-size: var(--text-l);
  color: rgb(var(--v-theme-slate));
}
.step:hover {
  background: rgba(var(--v-theme-surface), 0.7);
}
.step.router-link-active {
  background: rgb(var(--v-theme-surface));
  border-color: rgb(var(--v-theme-line));
}
.inside {
  container-type: inline-size;
  grid-row: 3;
  min-width: 0;
  min-height: 0;
  overflow: auto;
  background: rgb(var(--v-theme-surface));
  border-left: var(--line);
}
.rail {
  grid-row: 4;
  grid-column: 1 / 3;
}
/* at 200 %, or on a small screen: the rooms stand in a row, and the whole page scrolls */
@media (max-width: 820px) {
  .workup {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto auto auto minmax(0, 1fr) auto;
  }
  .strip,
  .refused,
  .rail {
    grid-column: 1;
  }
  .strip {
    flex-wrap: wrap;
    gap: 6px;
  }
  .stair {
    flex-flow: row wrap;
    padding: 6px 10px 0;
  }
  .step {
    margin-left: 0 !important;
    padding: 4px 10px;
    border-radius: 6px 6px 0 0;
    border-right: 1px solid transparent;
  }
  .inside {
    grid-row: 4;
    border-left: 0;
    border-top: var(--line);
  }
  .rail {
    grid-row: 5;
  }
}
@media (max-height: 560px) {
  .workup {
    height: auto;
  }
  .inside {
    height: 520px;
  }
}
</style>
