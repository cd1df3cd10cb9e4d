<script setup lang="ts">
import { mdiAlertOutline, mdiCheck } from '@mdi/js'
import { computed } from 'vue'
import { useWorkup } from '../useWorkup'

const { worth, lit } = useWorkup()
const checks = computed(() => worth.data.value?.checks ?? [])
const asked = computed(() => checks.value.filter((c) => !c.ok))
const fine = computed(() => checks.value.filter((c) => c.ok))
const addresses = computed(() =>
  Object.fromEntries((worth.data.value?.price.comps ?? []).map((c) => [c.listing_id, c.address])),
)
</script>

<template>
  <section aria-labelledby="checks">
    <h2 id="checks" class="mb-2">
      What an appraiser would ask
      <span v-if="checks.length" class="quiet small">
        {{
          asked.length ? `${asked.length} of ${asked.length + fine.length} to look at` : 'nothing stands out'
        }}
      </span>
    </h2>
    <ul>
      <li v-for="c in asked" :key="c.name" class="asked">
        <v-icon :icon="mdiAlertOutline" size="18" class="sign" />
        <p>
          <b>{{ c.label }}.</b> {{ c.says }}
          <span class="todo">{{ c.do }}</span>
          <span v-if="c.homes.length && c.homes.length < 6" class="homes small">
            <span
              v-for="h in c.homes"
              :key="h"
              class="home"
              :class="{ at: lit === h }"
              @mouseenter="lit = h"
              @mouseleave="lit = null"
              >{{ addresses[h] || h }}</span
            >
          </span>
        </p>
      </li>
    </ul>
    <details v-if="fine.length" :open="!asked.length">
      <summary class="quiet small">{{ fine.length }} in order</summary>
      <ul class="fine small">
        <li v-for="c in fine" :key="c.name">
          <v-icon :icon="mdiCheck" size="15" class="moss" /> <b>{{ c.label }}.</b> {{ c.says }}
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 8px;
}
.asked {
  display: grid;
  grid-template-columns: 24px 1fr;
}
.sign {
  color: rgb(var(--v-theme-clay));
  margin-top: 1px;
}
.todo {
  display: block;
  color: rgb(var(--v-theme-quiet));
}
.homes {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
.home {
  cursor: default;
  border-bottom: 1px dotted rgb(var(--v-theme-quiet));
}
.home.at {
  color: rgb(var(--v-theme-cedar));
}
details {
  margin-top: 10px;
}
summary {
  cursor: pointer;
}
.fine {
  margin-top: 6px;
  gap: 3px;
}
</style>
