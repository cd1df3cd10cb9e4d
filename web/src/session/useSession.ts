import { served } from '@/shared/servicePath'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, got } from '@/shared/api/client'

/** Who is signed in here, and what stands before those who are not. */
export function useSession() {
  const client = useQueryClient()
  const session = useQuery({
    queryKey: ['session'],
    queryFn: () => got(api.GET('/api/session')),
    staleTime: Infinity,
  })
  const who = computed(() => session.data.value?.who ?? null)
  const isManager = computed(() => who.value?.role === 'manager')
  const mayImport = computed(() => !!who.value && (who.value.may_import || isManager.value))
  /** Nobody signed in, and somebody has to. */
  const isOut = computed(() => !!session.data.value && !session.data.value.who)

  /** All is asked anew after signing in: what is shown is what the account may see. */
  async function begin(answer: Awaited<ReturnType<typeof ask>>) {
    const before = who.value?.account_id
    await client.cancelQueries({ queryKey: ['session'] }) // asked before: its answer is no longer true
    client.setQueryData(['session'], answer)
    if (before !== undefined && before !== answer.who?.account_id) window.location.assign(served('/'))
    else await client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
  }
  const ask = (name: string, password: string) => got(api.POST('/api/session', { body: { name, password } }))
  const signIn = async (name: string, password: string) => begin(await ask(name, password))
  const makeFirst = async (code: string, name: string, password: string) =>
    begin(await got(api.POST('/api/first-account', { body: { code, name, password } })))
  async function signOut(everywhere: boolean) {
    await (everywhere ? got(api.DELETE('/api/sessions')) : got(api.DELETE('/api/session')))
    window.location.assign(served('/'))
  }
  return { session, who, isManager, mayImport, isOut, signIn, makeFirst, signOut }
}
