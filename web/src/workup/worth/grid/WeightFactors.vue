<script setup lang="ts">
import { computed } from 'vue'
import type { Docs } from '@/shared/api/client'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { number } from '@/shared/format'

/** What makes one comp's weight: each factor in words, beside the middle comp's, and how many times the others' it is. */
const props = defineProps<{ name: string; weight: number; typed: boolean; factors: Docs['FactorDoc'][] }>()
const whole = computed(() => props.factors.reduce((product, f) => product * f.times, 1))
const MUCH = 1.05
const tone = (times: number) => (times > MUCH ? 'moss' : times < 1 / MUCH ? 'clay' : 'quiet')
</script>

<template>
  <div class="sheet box" role="dialog" :aria-label="`The weight of ${name}`">
    <b>{{ name }} weighs {{ number(100 * weight, 1) }} %</b>
    <p v-if="typed" class="small cedar">Typed by hand; by the formula it would weigh as these factors say.</p>
    <PlainTable class="small" :aria-label="`What makes the weight of ${name}`">
      <thead>
        <tr>
          <th>Of this sale</th>
          <th class="num">Middle one</th>
          <th class="num">Factor</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in factors" :key="f.name">
          <td>{{ f.says }}</td>
          <td class="num quiet">{{ f.usual }}</td>
          <td class="num" :class="tone(f.times)">× {{ number(f.times, 2) }}</td>
        </tr>
        <tr class="whole">
          <td>Against the middle of the comps</td>
          <td />
          <td class="num">
            <b>× {{ number(whole, 2) }}</b>
          </td>
        </tr>
      </tbody>
    </PlainTable>
  </div>
</template>

<style scoped>
.box {
  padding: 12px 14px;
  width: 400px;
}
.whole td {
  border-top: 1.5px solid rgb(var(--v-theme-slate));
}
</style>
