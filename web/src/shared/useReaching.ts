import { defineAsyncComponent, ref } from 'vue'
import type { AsyncComponentLoader, Component } from 'vue'
import { isNavigationFailure, NavigationFailureType } from 'vue-router'
import type { RouteLocationNormalized, Router } from 'vue-router'
import { api, got, sooner } from './api/client'
import { served } from './servicePath'

/** The place that was asked for while its part of the program could not be fetched. */
const wanted = ref<RouteLocationNormalized | null>(null)

const answers = () =>
  sooner(
    () => got(api.GET('/api/health')),
    () => undefined,
  )
const pause = (ms: number) => new Promise((done) => window.setTimeout(done, ms))
const TRIES = 2

/** Goes to what is wanted as soon as the service answers, unless the reader has gone elsewhere meanwhile. */
async function reach(router: Router) {
  for (let tries = 0; wanted.value; tries += 1) {
    await answers()
    const to: RouteLocationNormalized | null = wanted.value
    if (!to) return
    // it answers, and yet the part is not there: a newer program has its parts under other names
    if (tries === TRIES) return window.location.assign(served(to.fullPath))
    await pause(300 + 1500 * tries)
    await router.push(to.fullPath).catch(() => undefined)
  }
}

/** Waits for places that cannot be opened now: the router tells of each. */
export function reaching(router: Router) {
  router.afterEach((_to, _from, failure) => {
    // who asks for the place where they are has let the other go too
    if (!failure || isNavigationFailure(failure, NavigationFailureType.duplicated)) wanted.value = null
  })
  router.onError((error: unknown, to) => {
    if (!/module|import|preload/i.test(String(error))) return
    const isWaiting = wanted.value !== null
    wanted.value = to
    if (!isWaiting) void reach(router)
  })
}

export const useReaching = () => wanted

/** A part of a room that is fetched when it is first shown; where it cannot be, again once the service answers. */
export const later = <T extends Component>(load: AsyncComponentLoader<T>) =>
  defineAsyncComponent({
    loader: load,
    onError: (_error, retry, fail, tries) => {
      if (tries > 2 * TRIES) fail()
      else void answers().then(() => window.setTimeout(retry, 300 + 1500 * (tries - 1)))
    },
  })
