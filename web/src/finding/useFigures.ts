import { computed } from 'vue'
import type { Finding } from './useFinding'

/** Names the figures of all found and of the chosen among the service's answers. */
export function figuresKey(finding: Finding) {
  return computed(() => ['summaries', ...finding.stamp.value, chosenKeys(finding)])
}

/** The homes that are chosen, in the order in which they were. */
export const chosenKeys = (finding: Finding) =>
  Object.entries(finding.choices.value)
    .filter(([, choice]) => choice === 'kept')
    .map(([key]) => key)
