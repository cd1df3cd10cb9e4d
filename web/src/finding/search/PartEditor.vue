<script setup lang="ts">
import CheckBox from '@/shared/ui/CheckBox.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import StepSlider from '@/shared/ui/fields/StepSlider.vue'
import { vFocus } from '@/shared/vFocus'
import { computed, ref } from 'vue'
import { fact, number } from '@/shared/format'
import { localHead } from '@/shared/localForm'
import { KIND_WORDS } from '@/shared/map/marks'
import { useFinding } from '../useFinding'
import PlacePart from '../parts/PlacePart.vue'
import DatesPart from '../parts/DatesPart.vue'
import YesNoPart from '../parts/YesNoPart.vue'
import RangePart from '../parts/RangePart.vue'
import TextPart from '../parts/TextPart.vue'
import WindowsPart from '../parts/WindowsPart.vue'
import WordsPart from '../parts/WordsPart.vue'
import KindsPart from '../parts/KindsPart.vue'
import type { Search, SearchTools } from './useSearch'

const props = defineProps<{ part: string; search: SearchTools }>()
const emit = defineEmits<{ close: [] }>()
const { home, refused } = useFinding()
const RADII = [0.25, 0.5, 0.75, 1, 1.25, 1.5, 2, 3, 5, 10, 15, 25]
const DAYS = [30, 60, 90, 120, 180, 270, 365, 545, 730, 1095, 1460, 1825]

const draft = computed(() => props.search.draft.value as Search)
const criterion = computed(() => draft.value.criteria?.find((c) => c.field === props.part))
const PLACES = ['areas', 'not_areas', 'fences', 'shapes', 'parcels']
const kind = computed(() => props.search.field(props.part)?.kind)
const unit = computed(() => props.search.field(props.part)?.unit)
const window_ = computed(() =>
  props.part.startsWith('windows.') && props.part !== 'windows.now' ? props.part.slice(8) : null,
)
const days = computed(() => (window_.value ? (draft.value.windows?.[window_.value]?.days ?? null) : null))
const mine = computed(() => home.value?.subject.facts[props.part])
const mineWord = computed(() => (typeof mine.value === 'string' ? mine.value : undefined))
const mineNumber = computed(() => (typeof mine.value === 'number' ? mine.value : undefined))
const fault = ref('')

async function take(next: Search, close = false) {
  fault.value = ''
  if (!(await props.search.take(next))) fault.value = refused.value?.message ?? ''
  else if (close) emit('close')
}
/** Nearest step of a ladder to the present value: where the slider stands. */
function stepOf(ladder: number[], value: number | null | undefined): number {
  if (value === null || value === undefined) return ladder.length - 1
  return ladder.reduce((best, v, i) => (Math.abs(v - value) < Math.abs(ladder[best] - value) ? i : best), 0)
}

/** Counts of a search, of which kinds: "38 sold, 4 for sale". */
const ofKinds = (counts: Record<string, number>) =>
  Object.entries(KIND_WORDS)
    .filter(([kind]) => counts[kind])
    .map(([kind, words]) => `${number(counts[kind])} ${words}`)
    .join(', ') || 'none'
const now = computed(() => props.search.live.value?.counts ?? props.search.found.value?.counts ?? {})
const blame = computed(() => {
  const wrong = props.search.found.value?.fault
  return wrong?.part === props.part ? wrong.message : ''
})
const ifs = computed(() => {
  const w = props.search.whatIf.value.find((x) => x.part === props.part)
  if (!w) return []
  return [
    w.tighter && { words: w.tighter.words, n: ofKinds(w.tighter.counts) },
    w.looser && { words: w.looser.words, n: ofKinds(w.looser.counts) },
    w.without && { words: 'no limit', n: ofKinds(w.without) },
  ].filter((x): x is { words: string; n: string } => !!x)
})
</script>

<template>
  <div class="sheet raised pa-4 editor" role="dialog" :aria-label="search.label(part)">
    <h2 class="mb-1">{{ search.label(part) }}</h2>
    <p v-if="mine !== undefined" class="quiet small mb-2">
      This home: <b class="cedar">{{ fact(mine, kind ?? '', unit) }}</b>
    </p>
    <template v-if="part === 'radius_miles'">
      <StepSlider
        :at="stepOf(RADII, draft.radius_miles)"
        :steps="RADII.length"
        :name="localHead('Miles from the home')"
        @slid="search.slide(search.withRadius(RADII[$event]))"
      />
      <p v-focus class="typed">
        within
        <NumberField
          :value="draft.radius_miles"
          unit="mi"
          placeholder="any"
          :aria-label="localHead('Miles')"
          @number="take(search.withRadius($event))"
        />
        {{ localHead('miles') }}
      </p>
    </template>
    <template v-else-if="window_">
      <StepSlider
        :at="stepOf(DAYS, days)"
        :steps="DAYS.length"
        name="Days back"
        @slid="search.slide(search.withWindow(window_, DAYS[$event]))"
      />
      <p v-focus class="typed">
        in the last
        <NumberField
          :value="days"
          unit="days"
          placeholder="any"
          aria-label="Days"
          @number="take(search.withWindow(window_, $event === null ? null : Math.round($event)))"
        />
        days
      </p>
    </template>
    <WindowsPart v-else-if="part === 'windows.now'" :search="search" />
    <KindsPart v-else-if="part === 'home_kinds'" :search="search" />
    <PlacePart
      v-else-if="PLACES.includes(part)"
      :part="part"
      :search="search"
      @fault="fault = refused?.message ?? $event"
    />
    <TextPart v-else-if="kind === 'text'" :part="part" :search="search" />
    <WordsPart v-else-if="kind === 'word'" :part="part" :search="search" :mine="mineWord" />
    <YesNoPart v-else-if="kind === 'yes_no'" :part="part" :search="search" />
    <DatesPart
      v-else-if="kind === 'date'"
      :part="part"
      :search="search"
      @taken="fault = $event ? '' : (refused?.message ?? '')"
    />
    <RangePart
      v-else-if="kind"
      :part="part"
      :search="search"
      :mine="mineNumber"
      @fault="fault = $event"
      @taken="fault = ''"
    />
    <label v-if="criterion" class="known small">
      <CheckBox
        :model-value="criterion.must_be_known"
        @update:model-value="take(search.withCriterion(part, { must_be_known: $event }))"
      />
      must be known
    </label>
    <p v-if="fault || refused || blame" class="clay small mt-2" role="alert">
      {{ fault || refused?.message || blame }}
    </p>
    <p class="small mt-3" aria-live="polite">
      Found now: <b>{{ ofKinds(now) }}</b>
    </p>
    <p v-if="ifs.length" class="quiet small">What if:</p>
    <p v-for="w in ifs" :key="w.words" class="quiet small if">
      {{ w.words }}: <b>{{ w.n }}</b>
    </p>
    <p v-if="part !== 'windows.now'" class="mt-2">
      <LinkButton @click="take(search.without(part), true)">
        {{
          part === 'leave_out_new_construction'
            ? 'Let new construction in'
            : part === 'leave_out_distressed'
              ? 'Let distressed sales in'
              : 'No limit here'
        }}
      </LinkButton>
    </p>
  </div>
</template>

<style scoped>
.editor {
  min-width: 340px;
  max-width: 480px;
}
.typed {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
.typed :deep(input) {
  width: 74px;
  padding: 3px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
  text-align: right;
}
.if {
  padding-left: 12px;
}
.known {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-top: 8px;
}
</style>
