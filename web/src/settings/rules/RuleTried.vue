<script setup lang="ts">
import type { Docs } from '@/shared/api/client'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import type { Tried } from './useHouseRules'
import { inField } from '@/shared/format'

/** A value that is tried for a rule: what it would change on a workup, and saved or left. */
defineProps<{
  tried: Tried | null
  workups: readonly Docs['WorkupRow'][]
  effects?: Docs['EffectsDoc']
  asking: boolean
  fault: string
  said: string
  alone: boolean
}>()
const on = defineModel<number | null>('on', { required: true })
defineEmits<{ save: [forOffice: boolean]; leave: [] }>()
</script>

<template>
  <section class="sheet tried" aria-label="What it would change">
    <p v-if="said" role="status" class="moss">{{ said }}</p>
    <p v-if="fault" role="alert" class="clay">{{ fault }}</p>
    <template v-if="tried">
      <h2>
        {{ tried.rule.label }}: {{ inField(tried.rule.value, tried.rule.unit) }} →
        {{ tried.value == null ? 'as usual' : inField(tried.value, tried.rule.unit) }}
      </h2>
      <label v-if="workups.length" class="small">
        On the workup
        <ChoiceField v-model="on">
          <option v-for="w in workups" :key="w.workup_id" :value="w.workup_id">{{ w.title }}</option>
        </ChoiceField>
      </label>
      <p v-else class="quiet">Begin a workup to see what it would change.</p>
      <template v-if="!fault && effects">
        <p v-if="effects.keeps">It keeps the rules that it was delivered with: nothing of it changes.</p>
        <p v-else-if="!effects.effects.length">Nothing changes there.</p>
        <dl v-else :aria-busy="asking">
          <template v-for="e in effects.effects" :key="e.what">
            <dt>{{ e.what }}</dt>
            <dd>
              <span class="was">{{ e.before }}</span>
              <span class="would">{{ e.after }}</span>
            </dd>
          </template>
        </dl>
      </template>
      <p v-else-if="asking" class="quiet" role="status">Working it out …</p>
      <div class="acts">
        <ActButton v-if="tried.rule.may_office" :disabled="!!fault" @click="$emit('save', true)">
          {{ alone ? 'Save' : 'Save for the office' }}
        </ActButton>
        <ActButton v-if="tried.rule.may && !alone" :disabled="!!fault" plain @click="$emit('save', false)">
          Save for me
        </ActButton>
        <ActButton plain @click="$emit('leave')">Leave it</ActButton>
      </div>
    </template>
    <p v-else class="quiet">
      Type another value: what it would change on a workup is said here before it is saved.
    </p>
  </section>
</template>

<style scoped>
.tried {
  padding: 16px 18px;
  display: grid;
  gap: 10px;
}
label {
  display: grid;
  gap: 3px;
}
dl {
  margin: 0;
}
dt {
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
  margin-top: 8px;
}
dd {
  margin: 0;
}
.was {
  display: block;
  color: rgb(var(--v-theme-quiet));
  text-decoration: line-through;
}
.would {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 4px;
}
</style>
