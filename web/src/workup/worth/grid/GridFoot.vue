<script setup lang="ts">
import LinkButton from '@/shared/ui/LinkButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import { money, number, signedPct } from '@/shared/format'
import { useGridTyping } from './useGridTyping'
import { vWord } from '@/shared/words/vWord'
import WeightFactors from './WeightFactors.vue'
import WorkedOut from '../../WorkedOut.vue'

/** What each comp comes to: adjustments net and gross against the limits, its adjusted price, how much it weighs. */
const props = defineProps<{
  comps: Docs['PriceDoc']['comps']
  overLimits: string[][]
  factors: Docs['FactorDoc'][][]
}>()
const { faultAt, typeWeight, isTypedWeight, weightBack } = useGridTyping()
const exceeding = computed(() => props.overLimits.filter((limits) => limits.length).length)
const beyond = (i: number) =>
  props.overLimits[i]?.length ? `, beyond a limit: ${props.overLimits[i].join('; ')},` : ''
const weightFault = computed(() =>
  props.comps.map((c) => faultAt(`weight ${c.listing_id}`)).find((words) => words),
)
</script>

<template>
  <tfoot>
    <tr>
      <td class="name" colspan="3">
        <span v-word="'net_gross'">Net · gross</span>&ensp;
        <span v-if="exceeding" class="quiet small">{{ exceeding }} of {{ comps.length }} exceed a limit</span>
      </td>
      <td v-for="(c, i) in comps" :key="c.listing_id" class="num small" :title="overLimits[i]?.join('; ')">
        <span :class="{ beyond: overLimits[i]?.length }">
          <WorkedOut
            figure="net_gross"
            :of="c.listing_id"
            :name="`net and gross of ${c.address || c.listing_id}${beyond(i)}`"
          >
            {{ signedPct(c.net_pct) }} · {{ number(c.gross_pct, 1) }} %
          </WorkedOut>
        </span>
      </td>
    </tr>
    <tr class="total">
      <td class="name" colspan="3"><span v-word="'adjusted_price'">Adjusted price</span></td>
      <td v-for="c in comps" :key="c.listing_id" class="num">
        <WorkedOut
          figure="adjusted_price"
          :of="c.listing_id"
          :name="`adjusted price of ${c.address || c.listing_id}`"
        >
          <b>{{ money(c.adjusted_price) }}</b>
        </WorkedOut>
      </td>
    </tr>
    <tr>
      <td class="name" colspan="3">
        <span v-word="{ name: 'weight', more: 'Type a share to set it, the rest rescale' }">Weight, %</span> ·
        <span v-word="'likeness'">likeness</span>
        <span v-if="weightFault" class="clay small" role="alert">{{ weightFault }}</span>
      </td>
      <td v-for="(c, i) in comps" :key="c.listing_id" class="num small quiet weight">
        <LinkButton
          v-if="isTypedWeight(c.listing_id)"
          :aria-label="`Weight of ${c.address || c.listing_id}: back to the formula`"
          title="Back to the formula"
          @click="weightBack(c.listing_id)"
        >
          ↺
        </LinkButton>
        <TypedInput
          class="typed-in"
          :value="number(100 * c.weight, 1)"
          :class="{ cedar: isTypedWeight(c.listing_id) }"
          inputmode="decimal"
          title="Type a share to set it; the rest rescale"
          :aria-label="`Weight of ${c.address || c.listing_id}, percent`"
          :aria-invalid="!!faultAt(`weight ${c.listing_id}`)"
          @typed="typeWeight(c.listing_id, c.weight, $event)"
        />
        ·
        <MenuBox location="top">
          <template #press="{ props: activator }">
            <LinkButton
              v-bind="activator"
              class="why"
              :aria-label="`${number(c.likeness)} of 100 alike: what makes the weight of ${c.address || c.listing_id}`"
            >
              {{ number(c.likeness) }}
            </LinkButton>
          </template>
          <WeightFactors
            :name="c.address || c.listing_id"
            :weight="c.weight"
            :typed="isTypedWeight(c.listing_id)"
            :factors="factors[i] ?? []"
          />
        </MenuBox>
      </td>
    </tr>
  </tfoot>
</template>

<style scoped>
td {
  position: sticky;
  z-index: 2;
  height: 30px;
}
.name {
  z-index: 4;
}
tr:nth-child(1) td {
  bottom: 59px;
}
tr:nth-child(2) td {
  bottom: 29px;
}
tr:nth-child(3) td {
  bottom: 0;
}
.weight {
  white-space: nowrap;
}
.weight .typed-in {
  width: 42px;
}
.why {
  min-width: 24px;
  min-height: 24px;
}
.weight .cedar {
  color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
.beyond {
  background: rgba(var(--v-theme-lamp), 0.35);
  padding: 1px 5px;
  border-radius: var(--corner);
}
.total td {
  border-top: 1.5px solid rgb(var(--v-theme-slate));
}
</style>
