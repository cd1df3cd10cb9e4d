<script setup lang="ts">
import { computed } from 'vue'
import { money } from '@/shared/format'
import { useWorkup } from '../useWorkup'
import AdjustmentGrid from './AdjustmentGrid.vue'
import AskPanel from './AskPanel.vue'
import BacktestPanel from './BacktestPanel.vue'
import NetSheet from './NetSheet.vue'

const { worth } = useWorkup()
const price = computed(() => worth.data.value?.price)
</script>

<template>
  <div class="worth">
    <p v-if="worth.isError.value" class="lamp" role="alert">{{ worth.error.value?.message }}</p>
    <template v-if="price">
      <p v-if="!price.comps.length" class="lamp">
        No comps are kept yet. Keep some sales in <router-link :to="{ name: 'comps' }">Comps</router-link> and
        the grid fills itself.
      </p>
      <AdjustmentGrid v-else />
      <AskPanel />
      <div class="below">
        <section>
          <h2 class="mb-2">Ways to the number</h2>
          <table class="plain">
            <tbody>
              <tr v-for="m in price.methods" :key="m.name">
                <td>
                  <details>
                    <summary :class="{ strong: m.name === 'adjusted_comps' }">{{ m.label }}</summary>
                    <p class="quiet small formula">{{ m.formula }}</p>
                  </details>
                </td>
                <td class="num value" :class="{ moss: m.name === 'adjusted_comps' }">
                  <b>{{ money(Math.round(m.value / 100) * 100) }}</b>
                </td>
              </tr>
            </tbody>
          </table>
          <NetSheet class="mt-6" />
        </section>
        <div class="side">
          <section>
            <h2 class="mb-2">What a reviewer would ask</h2>
            <p v-for="w in price.warnings" :key="w" class="lamp mb-2">{{ w }}</p>
            <p v-if="!price.warnings.length" class="quiet">Nothing stands out.</p>
          </section>
          <BacktestPanel />
        </div>
      </div>
    </template>
    <p v-else-if="!worth.isError.value" class="quiet">Weighing …</p>
  </div>
</template>

<style scoped>
.worth {
  padding: 16px 20px 28px;
}
.below {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 36px;
  margin-top: 24px;
}
summary {
  cursor: pointer;
}
.side {
  display: grid;
  gap: 28px;
  align-content: start;
}
.strong {
  font-weight: 600;
}
.value {
  vertical-align: top;
}
.formula {
  max-width: 52ch;
  margin-top: 4px;
}
</style>
