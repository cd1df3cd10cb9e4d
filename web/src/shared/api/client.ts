import createClient from 'openapi-fetch'
import { SERVICE_PATH } from '../servicePath'
import type { components, paths } from './schema'

export type Docs = components['schemas']
export const api = createClient<paths>({ baseUrl: SERVICE_PATH })

/** What the service said was wrong: a sentence for people, and the field it is about. */
export class Told extends Error {
  constructor(
    message: string,
    readonly field: string | null,
    readonly status: number,
    /** A question: the same again, with `sure`, is taken. */
    readonly odd = false,
    /** Somebody changed the same part: the same again on the newest revision takes its place. */
    readonly clash = false,
  ) {
    super(message)
  }
}

let toldOfSigningOut: () => void = () => undefined
/** What happens when the service no longer knows who asks. */
export const onSignedOut = (then: () => void) => (toldOfSigningOut = then)

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The data of an answer, or the service's own words as an error. */
export async function got<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    throw new Told('Rain Porch does not answer. Is it still running? Nothing is lost; try again.', null, 0)
  }
  if (answer.error !== undefined || !answer.response.ok) {
    if (answer.response.status === 401 && !answer.response.url.endsWith('/api/session')) toldOfSigningOut()
    const said = (answer.error ?? {}) as {
      message?: string
      field?: string | null
      odd?: boolean
      clash?: boolean
    }
    throw new Told(
      said.message ?? 'Something went wrong here. Try again.',
      said.field ?? null,
      answer.response.status,
      said.odd ?? false,
      said.clash ?? false,
    )
  }
  return answer.data as T
}

const NOT_THERE = [0, 401, 502, 503, 504]

/** Ask until there is an answer: `gone` tells each time that the service is away, or no longer knows who asks. */
export async function sooner<T>(ask: () => Promise<T>, gone: (away: boolean) => void): Promise<T> {
  for (;;) {
    try {
      const answer = await ask()
      gone(false)
      return answer
    } catch (error) {
      if (!NOT_THERE.includes((error as Told).status)) {
        gone(false)
        throw error
      }
    }
    gone(true)
    await new Promise((again) => window.setTimeout(again, 1500))
  }
}

/** What a request that sends a file gives the client: the file as it is. */
export const withFile = (file: Blob) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'content-type': 'application/octet-stream' },
})
