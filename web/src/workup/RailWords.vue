<script setup lang="ts">
import WorkedOut from './WorkedOut.vue'
import { vWord } from '@/shared/words/vWord'
import TextField from '@/shared/ui/fields/TextField.vue'
import { computed, ref, watch } from 'vue'
import { number, perSqft, priced, pricedRange, signedPct } from '@/shared/format'
import { localHead } from '@/shared/localForm'
import { noNumber, typedNumber } from '@/shared/typed'
import { useAsking, within as chanceWithin } from './worth/useAsking'
import { useWorkup } from './useWorkup'

/** What the rail comes to in words: the indicated value with its range, and the list price, to be typed. */
const props = defineProps<{ listPrice: number | null }>()
const emit = defineEmits<{ ask: [dollars: number | null] }>()
const { worth, open, refused, reckoning, kept } = useWorkup()
const { asking, price: asked } = useAsking()
const price = computed(() => worth.data.value?.price)
const value = computed(() => price.value?.indicated_value ?? null)
const soon = computed(() => chanceWithin(asking.data.value?.here?.chances, 30))
const area = computed(() => (open.data.value?.subject.facts.living_area as number | undefined) ?? null)

const typed = ref('')
const unread = ref('')
const typedPer = ref('')
watch(
  () => props.listPrice,
  (now) => {
    unread.value = ''
    typed.value = now ? number(now) : ''
    typedPer.value = now && area.value ? perSqft(now / area.value) : ''
  },
  { immediate: true },
)

function typeTotal() {
  const given = typedNumber(typed.value)
  unread.value = Number.isNaN(given) ? noNumber(typed.value) : ''
  if (!unread.value && given !== props.listPrice) emit('ask', given)
}
function typePer() {
  const given = typedNumber(typedPer.value, '$/sq ft')
  unread.value = Number.isNaN(given) ? noNumber(typedPer.value) : ''
  if (unread.value) return
  if (given === null) return emit('ask', null)
  if (area.value) emit('ask', Math.round((given * area.value) / 100) * 100)
}
const fieldFault = computed(
  () => unread.value || (refused.value?.field?.endsWith('list_price') ? refused.value.message : ''),
)
</script>

<template>
  <div class="says" :class="{ stale: reckoning }" :aria-busy="reckoning">
    <p v-if="value" class="first">
      <span v-word="'indicated_value'">Indicated</span>{{ ' ' }}
      <WorkedOut figure="indicated_value" name="the indicated value">
        <b class="moss">{{ priced(value) }}</b>
      </WorkedOut>
      <span
        v-if="price?.range"
        v-word="{ name: 'range', more: price.range.measured ? '' : 'No backtest has measured it here yet' }"
      >
        · likely
        <WorkedOut figure="range" name="the range">{{
          pricedRange(price.range.low, price.range.high)
        }}</WorkedOut>
      </span>
    </p>
    <p v-if="price?.range" class="quiet small note">
      {{ Math.round(100 * price.range.coverage) }} % range{{
        price.range.measured ? ', measured here' : ', not yet measured'
      }}<template v-if="soon">
        ·
        <span
          v-word="{
            name: 'chance',
            more: `Between ${soon.low_pct} and ${soon.high_pct} % four times in five`,
          }"
          >contract within 30 days:
          <WorkedOut figure="chance" name="the chance of a contract" :list-price="asked"
            >{{ soon.pct }} %</WorkedOut
          ></span
        ></template
      >
    </p>
    <p v-if="!value" class="quiet first">
      {{ kept && reckoning ? 'Working out the value …' : 'Keep comps to see a value' }}
    </p>
    <p class="ask">
      <label v-word="'list_price'" for="list-total">List</label>
      <TextField
        id="list-total"
        v-model="typed"
        inputmode="numeric"
        placeholder="price"
        :aria-invalid="!!fieldFault"
        @change="typeTotal"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
      />
      <template v-if="area">
        <label for="list-per" class="quiet">or</label>
        <TextField
          id="list-per"
          v-model="typedPer"
          class="per"
          inputmode="decimal"
          placeholder="per"
          :aria-label="localHead('List price per square foot')"
          @change="typePer"
          @keydown.enter="($event.target as HTMLInputElement).blur()"
        />
        <span class="quiet small">{{ localHead('/sq ft') }}</span>
      </template>
      <span v-if="listPrice && value" class="cedar pct">{{
        signedPct((100 * (listPrice - value)) / value)
      }}</span>
    </p>
    <p v-if="fieldFault" class="clay small" role="alert">{{ fieldFault }}</p>
  </div>
</template>

<style scoped>
.note {
  margin-top: -1px;
}
.says {
  padding: 9px 18px 0 14px;
  border-left: 1px solid rgba(var(--v-theme-line), 0.7);
}
.says .first b {
  transition: opacity 0.15s linear 0.25s;
}
.stale .first b {
  opacity: 0.45;
}
.first {
  white-space: nowrap;
}
.first b {
  font-size: var(--title);
  font-weight: 600;
}
.ask {
  display: flex;
  align-items: center;
  gap: 7px;
  margin-top: 5px;
}
.ask input {
  width: 96px;
  height: 30px;
  padding: 0 8px;
  text-align: right;
  border: var(--line);
  border-radius: var(--corner);
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
.ask input[aria-invalid='true'] {
  border-color: rgb(var(--v-theme-clay));
}
.ask .per {
  width: 86px;
  font-weight: 400;
}
.pct {
  margin-left: auto;
  white-space: nowrap;
}
</style>
