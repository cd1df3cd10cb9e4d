import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'

export type Rule = Docs['HouseRuleDoc']
export type Tried = { rule: Rule; value: number | null }

/** The house's rules, one of them being tried, and what it would change on a workup. */
export function useHouseRules() {
  const client = useQueryClient()
  const told = useQuery({ queryKey: ['house-rules'], queryFn: () => got(api.GET('/api/house-rules')) })
  const workups = useQuery({
    queryKey: ['workups', 'for rules'],
    queryFn: () => got(api.GET('/api/workups')),
  })
  const tried = ref<Tried | null>(null)
  const fault = ref('')
  const said = ref('')
  const chosen = ref<number | null>(null)
  const open = computed(() => workups.data.value?.filter((w) => !w.fault && w.whose == null) ?? [])
  const on = computed({
    get: () => chosen.value ?? open.value[0]?.workup_id ?? null,
    set: (id: number | null) => (chosen.value = id),
  })
  const effects = useQuery({
    queryKey: computed(() => [
      'house-rules',
      'effects',
      tried.value?.rule.name ?? '',
      tried.value?.value ?? null,
      on.value,
    ]),
    enabled: computed(() => !!tried.value && on.value != null),
    retry: false,
    queryFn: () =>
      got(
        api.POST('/api/house-rules/effects', {
          body: {
            name: tried.value!.rule.name,
            value: tried.value!.value,
            workup_id: on.value!,
          },
        }),
      ),
  })
  function tryOut(rule: Rule, value: number | null) {
    fault.value = said.value = ''
    tried.value = value === rule.value ? null : { rule, value }
  }
  async function save(rule: Rule, value: number | null, forOffice: boolean) {
    fault.value = said.value = ''
    try {
      await got(
        api.PUT('/api/house-rules/{name}', {
          params: { path: { name: rule.name } },
          body: { value, for_office: forOffice },
        }),
      )
      said.value = `${rule.label} is changed.`
      tried.value = null
    } catch (error) {
      fault.value = (error as Told).message
    }
    // every figure may hang on it
    await client.invalidateQueries()
  }
  return { told, open, on, tried, tryOut, effects, save, fault, said }
}
