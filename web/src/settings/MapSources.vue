<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { reactive, ref, watch } from 'vue'
import MapLayerFields from './MapLayerFields.vue'
import { ADDRESS, type MapLayer } from './mapLayer'
import { api, got, type Docs, type Told } from '@/shared/api/client'

/** From where the map's streets and its pictures from the air come, for the whole office. */
type Source = Docs['MapSourceDoc']
const client = useQueryClient()
const held = useQuery({ queryKey: ['map', 'sources'], queryFn: () => got(api.GET('/api/map/sources')) })
const files = useQuery({
  queryKey: ['map', 'files'],
  queryFn: () => got(api.GET('/api/map/files')),
  staleTime: 0,
})
const LAYERS: ['streets' | 'aerial', string, string][] = [
  ['streets', 'Streets', 'the map of the records'],
  ['aerial', 'From the air', 'none'],
]
const FRESH: MapLayer = { from: '', address: '', form: 'raster', attribution: '' }
const typed = reactive({ streets: { ...FRESH }, aerial: { ...FRESH } })
watch(
  held.data,
  (now) => {
    for (const layer of ['streets', 'aerial'] as const) {
      const s = now?.[layer]
      Object.assign(
        typed[layer],
        s ? { from: s.file || ADDRESS, address: s.address, form: s.form, attribution: s.attribution } : FRESH,
      )
    }
  },
  { immediate: true },
)
const source = (t: MapLayer): Source | null =>
  t.from === ''
    ? null
    : t.from === ADDRESS
      ? { address: t.address.trim(), file: '', form: t.form, attribution: t.attribution, most_zoom: 19 }
      : { address: '', file: t.from, form: 'raster', attribution: t.attribution, most_zoom: 19 }
const said = ref('')
const failed = ref('')
async function keep() {
  said.value = failed.value = ''
  try {
    await got(
      api.PUT('/api/map/sources', { body: { streets: source(typed.streets), aerial: source(typed.aerial) } }),
    )
    said.value = 'Kept for the office. Maps show it once their page is loaded again.'
    await client.invalidateQueries({ queryKey: ['map'] })
  } catch (error) {
    failed.value = (error as Told).message
  }
}
</script>

<template>
  <section aria-labelledby="map-sources">
    <h2 id="map-sources" class="mt-8 mb-1">The map</h2>
    <p>
      Streets, water and lots come with the records. Where the office has tiles, by an address or in a file
      (<code>.mbtiles</code> or <code>.pmtiles</code>, put into the folder <code>map</code> beside the
      records), the map shows them underneath.
    </p>
    <form v-if="held.data.value" class="mt-3" @submit.prevent="keep">
      <MapLayerFields
        v-for="[layer, label, none] in LAYERS"
        :key="layer"
        v-model="typed[layer]"
        :label="label"
        :none="none"
        :files="files.data.value ?? []"
      />
      <ActButton type="submit" class="mt-2">Keep for the office</ActButton>
    </form>
    <p v-if="said" class="moss small mt-2" role="status">{{ said }}</p>
    <p v-if="failed" class="clay small mt-2" role="alert">{{ failed }}</p>
  </section>
</template>
