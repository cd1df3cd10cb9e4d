import { ref, watch, type Ref } from 'vue'
import type { Docs } from '@/shared/api/client'
import type { Finding } from './useFinding'

interface Frame {
  latitude: number
  longitude: number
  zoom: number
  reach: number
}

/**
 * What the map shows where nothing is looked from: all that was found. It stays while what is found stays in it, so that
 * nothing moves under a hand that draws; null where there is a home or a place.
 */
export function useFrame(
  found: Ref<Docs['CandidatesDoc'] | undefined>,
  home: Finding['home'],
): Ref<Frame | null> {
  const frame = ref<Frame | null>(null)
  watch(
    [found, () => home.value?.here],
    ([now, here]) => {
      if (here !== false || !now) {
        if (here) frame.value = null
        return
      }
      const next = around(now.candidates)
      const held = frame.value
      if (!next) return
      const apart = held ? far(held, next) : Infinity
      if (!held || apart > held.reach || next.reach > 2 * held.reach || next.reach < held.reach / 6)
        frame.value = next
    },
    { immediate: true },
  )
  return frame
}

const far = (a: { latitude: number; longitude: number }, b: { latitude: number; longitude: number }) =>
  Math.max(
    Math.abs(a.latitude - b.latitude) * 69,
    Math.abs(a.longitude - b.longitude) * 69 * Math.cos((a.latitude * Math.PI) / 180),
  )

/** The middle of homes, and a zoom at which nearly all of them are in sight. */
function around(homes: Docs['CandidateDoc'][]): Frame | null {
  const at = homes.flatMap((c) =>
    c.latitude == null || c.longitude == null ? [] : [{ latitude: c.latitude, longitude: c.longitude }],
  )
  if (!at.length) return null
  const middle = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!
  const centre = {
    latitude: middle(at.map((p) => p.latitude)),
    longitude: middle(at.map((p) => p.longitude)),
  }
  const miles = at.map((p) => far(p, centre)).sort((a, b) => a - b)
  const reach = Math.max(0.12, miles[Math.floor(0.98 * (miles.length - 1))]!)
  return { ...centre, reach, zoom: Math.min(16.5, Math.max(8, 13 + Math.log2(1.25 / reach))) }
}
