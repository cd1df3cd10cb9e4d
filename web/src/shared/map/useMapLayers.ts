import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch, type Ref } from 'vue'
import { api, got } from '../api/client'
import type { HomeMapDrawing } from './homeMap'

const aerial = ref(false) // on every map, until it is switched off

/** Which tiles lie under a map: streets, or pictures from the air where the office has them; whose they are. */
export function useMapLayers(drawing: Ref<HomeMapDrawing | null>) {
  const shown = useQuery({
    queryKey: ['map', 'shown'],
    queryFn: () => got(api.GET('/api/map/shown')),
    staleTime: Infinity,
  })
  const failed = ref(false)
  const hasAerial = computed(() => !!shown.data.value?.aerial)
  const layer = computed(
    () => (aerial.value && shown.data.value?.aerial) || shown.data.value?.streets || null,
  )
  watch(
    [drawing, layer],
    ([map, now]) => {
      failed.value = false
      map?.tiles.show(now, () => (failed.value = true))
    },
    { flush: 'post' },
  )
  const words = computed(() =>
    failed.value
      ? 'The map’s tiles cannot be had just now: this is the map of the records.'
      : (layer.value?.attribution ?? shown.data.value?.fault ?? ''),
  )
  return { aerial, hasAerial, words }
}
