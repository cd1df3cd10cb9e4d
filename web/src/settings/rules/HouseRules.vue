<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/session/useSession'
import { inField, moment } from '@/shared/format'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import NumberField from '@/shared/ui/fields/NumberField.vue'
import RuleTried from './RuleTried.vue'
import { useHouseRules, type Rule } from './useHouseRules'
import { localHead } from '@/shared/localForm'

/** Every rule that an office may choose for itself: what it means, what is usual, and what another would change. */
const { told, open, on, tried, tryOut, effects, save, fault, said } = useHouseRules()
const { session } = useSession()
const alone = computed(() => !!session.data.value?.by_itself)
const shown = (value: number | null | undefined, unit = '') =>
  value == null ? 'as usual' : inField(value, unit)
const groups = computed(() =>
  (told.data.value?.groups ?? []).map((g) => ({
    ...g,
    rules: told.data.value!.rules.filter((r) => r.group === g.name),
  })),
)
const byName = computed(() => Object.fromEntries((told.data.value?.rules ?? []).map((r) => [r.name, r])))
const inTrial = (rule: Rule) =>
  tried.value?.rule.name === rule.name ? (tried.value.value ?? rule.usual) : rule.value
const mayChange = (rule: Rule) => rule.may || rule.may_office
/** Whose the value is, where it is not the usual one. */
const whose = (rule: Rule) =>
  rule.own != null && !alone.value
    ? 'yours'
    : rule.value !== rule.usual
      ? alone.value
        ? 'chosen'
        : 'the office’s'
      : ''
</script>

<template>
  <div class="page framed">
    <header>
      <h1>House rules</h1>
      <p class="quiet">
        What Rain Porch goes by where nobody has said otherwise. A change counts from now on; what was
        delivered keeps the rules it was delivered with.
      </p>
      <nav aria-label="Groups of rules" class="jumps">
        <a v-for="g in groups" :key="g.name" class="link" :href="`#rules-${g.name}`">{{ g.label }}</a>
        <a class="link" href="#rules-changes">What was changed</a>
      </nav>
    </header>
    <div class="columns">
      <div>
        <section v-for="g in groups" :key="g.name" :aria-labelledby="`rules-${g.name}`">
          <h2 :id="`rules-${g.name}`">{{ g.label }}</h2>
          <PlainTable :aria-label="g.label" class="even">
            <thead>
              <tr>
                <th>Rule</th>
                <th class="wide">Value</th>
                <th class="usual">Usual</th>
                <th class="whose" />
              </tr>
            </thead>
            <tbody>
              <tr v-for="rule in g.rules" :key="rule.name" :class="{ tried: tried?.rule.name === rule.name }">
                <td>
                  {{ rule.label }}
                  <span class="quiet small">{{ rule.meaning }}</span>
                </td>
                <td class="value">
                  <ChoiceField
                    v-if="mayChange(rule) && rule.options.length"
                    :model-value="inTrial(rule)"
                    :aria-label="`${rule.label}, ${localHead(rule.unit)}`"
                    @update:model-value="tryOut(rule, Number($event))"
                  >
                    <option v-for="x in rule.options" :key="x" :value="x">{{ x }}</option>
                  </ChoiceField>
                  <NumberField
                    v-else-if="mayChange(rule)"
                    :value="inTrial(rule)"
                    :unit="rule.unit"
                    :aria-label="`${rule.label}, ${localHead(rule.unit) || 'a weight'}`"
                    @number="tryOut(rule, $event)"
                  />
                  <template v-else>{{ inField(rule.value, rule.unit) }}</template>
                  <span class="quiet small unit">{{ localHead(rule.unit) }}</span>
                </td>
                <td class="quiet">{{ inField(rule.usual, rule.unit) }}</td>
                <td>
                  <span v-if="whose(rule)" class="cedar small">{{ whose(rule) }}</span>
                  <LinkButton
                    v-if="whose(rule) && mayChange(rule)"
                    class="small ml-2"
                    :aria-label="`${rule.label} as usual`"
                    @click="tryOut(rule, null)"
                    >as usual</LinkButton
                  >
                </td>
              </tr>
            </tbody>
          </PlainTable>
        </section>
        <section aria-labelledby="rules-changes">
          <h2 id="rules-changes">What was changed</h2>
          <PlainTable v-if="told.data.value?.changes.length" aria-label="What was changed">
            <thead>
              <tr>
                <th>When</th>
                <th>Who</th>
                <th>Rule</th>
                <th>From</th>
                <th>To</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(c, i) in told.data.value.changes" :key="i">
                <td>{{ moment(c.made_at) }}</td>
                <td>{{ c.who ?? '' }}{{ c.own && !alone ? ', for themselves' : '' }}</td>
                <td>{{ byName[c.name]?.label }}</td>
                <td>{{ shown(c.before, byName[c.name]?.unit) }}</td>
                <td>{{ shown(c.value, byName[c.name]?.unit) }}</td>
              </tr>
            </tbody>
          </PlainTable>
          <p v-else class="quiet">Nothing yet: all rules are as usual.</p>
        </section>
      </div>
      <aside class="side">
        <RuleTried
          v-model:on="on"
          :tried="tried"
          :workups="open"
          :effects="effects.data.value"
          :asking="effects.isFetching.value"
          :fault="fault || (tried && effects.error.value ? effects.error.value.message : '')"
          :said="said"
          :alone="alone"
          @save="(forOffice) => tried && save(tried.rule, tried.value, forOffice)"
          @leave="tried = null"
        />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.page {
  padding: 28px 32px 60px;
  max-width: 1180px;
}
header p {
  max-width: 70ch;
  margin: 6px 0 10px;
}
.jumps {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  font-size: var(--text-s);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 36px;
  align-items: start;
}
.side {
  position: sticky;
  top: 24px;
  margin-top: 28px;
}
section {
  margin-top: 28px;
}
section h2 {
  scroll-margin-top: 20px;
  margin-bottom: 4px;
}
td > .quiet.small:not(.unit) {
  display: block;
}
table.even {
  table-layout: fixed;
}
.wide {
  width: 300px;
}
.usual {
  width: 70px;
}
.whose {
  width: 130px;
}
.value {
  white-space: nowrap;
}
.value :deep(input),
.value :deep(select) {
  width: 84px;
  text-align: right;
}
.unit {
  margin-left: 8px;
}
tr.tried td {
  background: rgba(var(--v-theme-cedar), 0.08);
}
@media (max-width: 1180px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
    order: -1;
  }
}
</style>
