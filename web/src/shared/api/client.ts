import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Docs = components['schemas']
export const api = createClient<paths>({ baseUrl: '' })

/** What the service said was wrong: a sentence for people, and the field it is about. */
export class Told extends Error {
  constructor(
    message: string,
    readonly field: string | null,
    readonly status: number,
    /** A question: the same again, with `sure`, is taken. */
    readonly odd = false,
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
    const said = (answer.error ?? {}) as { message?: string; field?: string | null; odd?: boolean }
    throw new Told(
      said.message ?? 'Something went wrong here. Try again.',
      said.field ?? null,
      answer.response.status,
      said.odd ?? false,
    )
  }
  return answer.data as T
}

/** What a request that sends a file gives the client: the file as it is. */
export const withFile = (file: Blob) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'content-type': 'application/octet-stream' },
})
