import { useQuery } from '@tanstack/vue-query'
import { afterFound, useFinding } from '../useFinding'

/** The search that the home itself suggests, one with every fact of it, and the change that helps most now. */
export function useProposals() {
  const finding = useFinding()
  return useQuery({
    queryKey: ['proposals', finding.stamp],
    queryFn: finding.ask.proposals,
    enabled: afterFound(finding),
  })
}
