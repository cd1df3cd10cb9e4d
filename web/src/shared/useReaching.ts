import { ref } from 'vue'
import { isNavigationFailure, NavigationFailureType } from 'vue-router'
import type { RouteLocationNormalized, Router } from 'vue-router'
import { api, got, sooner } from './api/client'
import { served } from './servicePath'

/** The name of a place that was asked for while the service did not answer: its part of the program is still to come. */
const wanted = ref<RouteLocationNormalized | null>(null)

/** Goes to a place as soon as its part of the program can be fetched, unless the reader has gone elsewhere meanwhile. */
export function reaching(router: Router) {
  let failed = 0
  router.afterEach((_to, _from, failure) => {
    // who asks for the place where they are has let it go too
    if (!failure || isNavigationFailure(failure, NavigationFailureType.duplicated)) wanted.value = null
  })
  router.onError(async (error: unknown, to) => {
    if (!/module|import|preload/i.test(String(error))) return
    failed = wanted.value?.fullPath === to.fullPath ? failed + 1 : 0
    wanted.value = to
    await sooner(
      () => got(api.GET('/api/health')),
      () => undefined,
    )
    if (wanted.value?.fullPath !== to.fullPath) return
    // it answers, and yet the part is not there: a newer program has its parts under other names
    if (failed > 1) window.location.assign(served(to.fullPath))
    else window.setTimeout(() => void router.push(to.fullPath).catch(() => undefined), 300 + 1500 * failed)
  })
}

export const useReaching = () => wanted
