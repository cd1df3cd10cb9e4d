<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import PlaceField from '@/shared/ui/fields/PlaceField.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { localHead } from '@/shared/localForm'
import type { Search, SearchTools } from '../search/useSearch'

const props = defineProps<{ part: string; search: SearchTools }>()
const emit = defineEmits<{ fault: [text: string] }>()
const draft = computed(() => props.search.draft.value as Search)
const barriers = useQuery({
  queryKey: ['barriers'],
  queryFn: () => got(api.GET('/api/map/barriers')),
  staleTime: Infinity,
})
const named = computed(() => (props.part === 'not_areas' ? 'not_areas' : 'areas'))
const taken = computed(() => draft.value[named.value] ?? [])
const fences = computed(() => draft.value.fences ?? [])
const shapes = computed(() => draft.value.shapes ?? [])
const free = computed(() =>
  (barriers.data.value ?? []).filter((b) => !fences.value.some((f) => f.name === b.name)),
)
const [from, to] = draft.value.parcels ?? []
const parcels = ref(from ? (from === to ? from : `${from} to ${to}`) : (draft.value.parcel_numbers ?? ''))

const take = (next: Partial<Search>) => props.search.take({ ...props.search.copy(), ...next })
async function addName(name: string) {
  if (!name || taken.value.includes(name)) return
  if (!(await take({ [named.value]: [...taken.value, name] }))) emit('fault', '')
}
const crossings = computed(
  () => (props.search.live.value?.crossings ?? props.search.found.value?.crossings ?? []).length,
)
async function setMiles(index: number, radius_miles: number) {
  const next = shapes.value.map((x, k) => (k === index ? { ...x, radius_miles } : x))
  if (!(await take({ shapes: next }))) emit('fault', '')
}
const takeParcels = () => take({ parcels: null, parcel_numbers: parcels.value.trim() })
</script>

<template>
  <template v-if="part === 'areas' || part === 'not_areas'">
    <p v-for="a in taken" :key="a" class="row">
      <span>{{ a }}</span>
      <LinkButton @click="take({ [named]: taken.filter((x) => x !== a) })"> take away </LinkButton>
    </p>
    <div class="add">
      <PlaceField
        label="Name of an area, subdivision, city or postal code"
        placeholder="Type part of a name; * for any letters"
        :keeps="false"
        @place="addName"
      />
    </div>
  </template>
  <template v-else-if="part === 'fences'">
    <p v-for="(f, i) in fences" :key="i" class="row">
      <span>{{ f.name || 'a drawn fence' }}</span>
      <LinkButton @click="take({ fences: fences.filter((_, k) => k !== i) })"> take away </LinkButton>
    </p>
    <p v-for="b in free" :key="b.name" class="row">
      <span class="quiet">{{ b.name }} ({{ b.kind }})</span>
      <LinkButton @click="take({ fences: [...fences, { name: b.name, lines: b.lines }] })">
        not across it
      </LinkButton>
    </p>
    <p class="quiet small mt-2">Or draw one on the map.</p>
  </template>
  <template v-else-if="part === 'shapes'">
    <p v-for="(s, i) in shapes" :key="i" class="row">
      <LinkButton
        @click="take({ shapes: shapes.map((x, k) => (k === i ? { ...x, inside: x.inside === false } : x)) })"
      >
        {{ s.inside === false ? 'not in' : 'inside' }}
      </LinkButton>
      <label v-if="s.radius_miles">
        a circle of
        <NumberField
          class="miles"
          :value="s.radius_miles"
          unit="mi"
          :aria-label="`Radius of circle ${i + 1} in ${localHead('miles')}`"
          @number="$event !== null && setMiles(i, $event)"
        />
        {{ localHead('mi') }}
      </label>
      <span v-else>{{ `an area of ${s.points.length} corners` }}</span>
      <LinkButton @click="take({ shapes: shapes.filter((_, k) => k !== i) })"> take away </LinkButton>
    </p>
    <p v-if="crossings" class="quiet small mt-2">
      An outline crosses itself where the map shows a cross: each of its loops counts as inside. Drag a corner
      to undo it.
    </p>
    <p class="quiet small mt-2">
      Draw more on the map. There, drag a corner to move it, a side to add one, the mark in the middle to move
      the whole; double-click a corner to take it away. By keys: N on the map, then the arrows.
    </p>
  </template>
  <form v-else @submit.prevent="takeParcels">
    <div class="add">
      <TextField v-model="parcels" aria-label="Parcel numbers" placeholder="07 to 08" @change="takeParcels" />
    </div>
    <p class="quiet small mt-2">
      A number, a block (08), a range (07 to 08, or 03-0012 to 03-0099), several with commas between them.
    </p>
  </form>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 2px 0;
}
.add {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
.row :deep(.miles) {
  width: 5.5em;
  padding: 1px 6px;
  border: var(--line);
  border-radius: var(--corner);
}
.add :deep(.place) {
  flex: 1;
}
.add :deep(input) {
  width: 100%;
  min-width: 0;
  padding: 5px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
