<script setup lang="ts">
/** The page of keys: opened and closed by “?”. */
import { KEYS, keysShown as open } from './keyTable'
import { isTyping, useKeys } from './keys'
import { computed, nextTick } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import LinkButton from '../ui/LinkButton.vue'
import DialogBox from '../ui/DialogBox.vue'

/** The page of the guide about where one is. */
const ROOMS: Record<string, string> = {
  desk: 'desk',
  workups: 'desk',
  home: 'home',
  comps: 'comps',
  around: 'comps',
  point: 'desk',
  worth: 'worth',
  paper: 'paper',
  market: 'market',
  records: 'records',
  imports: 'records',
  conclusions: 'records',
  health: 'records',
  incoming: 'records',
  settings: 'settings',
  rules: 'settings',
}
const route = useRoute()
const router = useRouter()
async function toGuide() {
  open.value = false
  await nextTick()
  await router.push({ name: 'guide', params: { page: page.value } })
}
const page = computed(() => ROOMS[String(route.name)] ?? 'index')
const said = computed(() => (page.value === 'index' ? 'the guide' : 'this room in the guide'))
useKeys((event) => {
  if (event.key !== '?' || isTyping(event) || event.ctrlKey || event.metaKey) return
  open.value = !open.value
  event.preventDefault()
})
</script>

<template>
  <DialogBox v-if="open" title="Keys" :width="860" @close="open = false">
    <p class="small">
      What this room is for, and how it is used:
      <LinkButton @click="toGuide">{{ said }}</LinkButton>. Rest the pointer on a word for its meaning.
    </p>
    <div class="tables">
      <section v-for="part in KEYS" :key="part.where" :aria-label="part.where">
        <h3>{{ part.where }}</h3>
        <dl>
          <template v-for="[pressed, words] in part.rows" :key="pressed">
            <dt>
              <kbd>{{ pressed }}</kbd>
            </dt>
            <dd>{{ words }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </DialogBox>
</template>

<style scoped>
.tables {
  columns: 2 340px;
  column-gap: 32px;
  margin-top: 10px;
}
section {
  break-inside: avoid;
  margin-bottom: 16px;
}
h3 {
  margin-top: 0;
  font-size: var(--text);
  margin-bottom: 4px;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 4px 14px;
  align-items: baseline;
}
dt {
  min-width: 84px;
}
kbd {
  font: inherit;
  font-weight: 600;
  font-size: var(--text-s);
}
</style>
