<script setup lang="ts">
import { computed } from 'vue'
import { useWorkup } from '../useWorkup'
import AdjustmentGrid from './grid/AdjustmentGrid.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import AskPanel from './AskPanel.vue'
import BacktestPanel from './BacktestPanel.vue'
import Checks from './Checks.vue'
import NetSheet from './NetSheet.vue'
import TallRail from './TallRail.vue'

const { worth, kept, state, send } = useWorkup()
const price = computed(() => worth.data.value?.price)
/** Kept homes that are no sales. */
const others = computed(() => (price.value ? Math.max(0, kept.value - price.value.comps.length) : 0))
</script>

<template>
  <div class="worth">
    <p v-if="worth.isError.value" class="lamp" role="alert">{{ worth.error.value?.message }}</p>
    <template v-if="price">
      <p v-if="!price.comps.length" class="lamp">
        No comps are kept yet. Keep some sales in <router-link :to="{ name: 'comps' }">Comps</router-link> and
        the grid fills itself.
      </p>
      <p v-else-if="others" class="quiet small mb-2">
        {{ price.comps.length }} of the {{ kept }} kept are sales and carry the value; the other {{ others }},
        not yet sold or failed, {{ others === 1 ? 'stands' : 'stand' }} on the rail beside it.
      </p>
      <p v-if="state?.rules" class="quiet small mb-2">
        It goes by the house rules it was delivered with, whatever the house has chosen since.
        <LinkButton @click="send({ change: 'keep_rules', rules: null })">Go by those of today</LinkButton>
      </p>
      <AdjustmentGrid v-if="price.comps.length" />
      <TallRail class="held" />
      <AskPanel class="held" />
      <div class="below held">
        <section>
          <NetSheet />
        </section>
        <div class="side">
          <Checks />
          <BacktestPanel />
        </div>
      </div>
    </template>
    <p v-else-if="!worth.isError.value" class="quiet">Weighing …</p>
  </div>
</template>

<style scoped>
/* the room has one scroll, down and across: the grid may be wider than it, all else stays in its width */
.worth {
  width: max-content;
  min-width: 100%;
  padding: 0 20px 28px;
}
.worth > p,
.held {
  position: sticky;
  left: 20px;
  width: calc(100cqw - 56px); /* the room’s own bar is not taken off by itself */
  padding-top: 10px;
}
.below {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 36px;
  margin-top: 24px;
}
.side {
  display: grid;
  gap: 28px;
  align-content: start;
}
</style>
