<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import { computed } from 'vue'
import { number } from '@/shared/format'
import Mark from '@/shared/map/Mark.vue'
import { KIND_WORDS } from '@/shared/map/marks'
import { useFinding } from '../useFinding'
import { useProposals } from './useProposals'
import type { Search, SearchTools } from './useSearch'

/** How many homes of each kind the search finds, what is unknown of them, and what would find more or fewer. */
const props = defineProps<{ search: SearchTools; brief?: boolean }>()
const { found, saving } = useFinding()
const counts = computed(() => props.search.live.value?.counts ?? found.data.value?.counts ?? {})
const unknown = computed(() =>
  Object.entries(props.search.live.value?.unknown ?? found.data.value?.unknown ?? {}),
)
const within = computed(() => Object.entries(found.data.value?.sold_within ?? {}))
const proposals = useProposals()
const helps = computed(() => proposals.data.value?.helps)
</script>

<template>
  <p class="counts" aria-live="polite">
    <span
      v-for="(words, kind) in KIND_WORDS"
      v-show="kind !== 'deed_sale' || counts[kind]"
      :key="kind"
      class="count"
    >
      <Mark :kind="String(kind)" /> <b>{{ number(counts[kind] ?? 0) }}</b> {{ words }}
    </span>
    <span v-if="unknown.length && !brief" class="quiet small">
      of these, unknown:
      <template v-for="[field, n] in unknown" :key="field"
        >{{ search.label(field).toLowerCase() }} {{ n }}
      </template>
    </span>
    <span v-if="helps && !brief" class="help small">
      {{ helps.sold > (counts.sold ?? 0) ? 'Few sold' : 'Many sold' }}:
      <!-- it takes the place of the whole search: never of one that is being saved just now -->
      <LinkButton :disabled="saving" @click="search.take(helps.search as Search)">
        {{ helps.words }}</LinkButton>:
      {{ helps.sold }}
    </span>
    <span v-if="!brief" class="quiet small within">
      sold within
      <template v-for="[days, n] in within" :key="days">
        <LinkButton :title="`Look back ${days} days`" @click="search.setWindow('sold', Number(days))">
          {{ days }} d: {{ n }}
        </LinkButton>
        {{ ' ' }}
      </template>
    </span>
  </p>
</template>

<style scoped>
.counts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
  margin-top: 6px;
}
.count {
  display: inline-flex;
  align-items: center;
  gap: 3px;
}
.help {
  padding: 0 8px;
  border-left: 3px solid rgb(var(--v-theme-lamp));
}
.within {
  margin-left: auto;
}
</style>
