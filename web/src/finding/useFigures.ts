import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { afterFound, type Finding } from './useFinding'

/** The figures of all found and of the chosen. */
export function useFigures(finding: Finding) {
  return useQuery({
    queryKey: computed(() => ['summaries', ...finding.stamp.value, chosenKeys(finding)]),
    queryFn: finding.ask.summaries,
    enabled: afterFound(finding),
    placeholderData: keepPreviousData,
  })
}

/** The homes that are chosen, in the order in which they were. */
const chosenKeys = (finding: Finding) =>
  Object.entries(finding.choices.value)
    .filter(([, choice]) => choice === 'kept')
    .map(([key]) => key)
