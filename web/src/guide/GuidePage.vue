<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

/** A page of the guide: what a room is for and how it is used, with its picture. The same text stands in docs/guide. */
const props = defineProps<{ page: string }>()
const PAGES = import.meta.glob<{ default: string; title: string }>('../../../docs/guide/*.md')
const ORDER = [
  'index',
  'desk',
  'home',
  'comps',
  'worth',
  'paper',
  'market',
  'records',
  'settings',
  'questions',
]
const NAMES: Record<string, string> = { index: 'The guide', questions: 'Twenty questions' }
const nameOf = (page: string) => NAMES[page] ?? page[0]!.toUpperCase() + page.slice(1)
const html = ref('')
const missing = ref(false)
const text = ref<HTMLElement>()
watch(
  () => props.page,
  async (page) => {
    const load = PAGES[`../../../docs/guide/${page}.md`]
    missing.value = !load
    if (!load) return
    html.value = (await load()).default
    await nextTick()
    text.value?.parentElement?.scrollTo({ top: 0 })
  },
  { immediate: true },
)
const router = useRouter()
/** A link to another page of the guide stays in the application. */
function follow(event: MouseEvent) {
  const link = (event.target as HTMLElement).closest('a')
  const page = /^(\w+)\.md$/.exec(link?.getAttribute('href') ?? '')?.[1]
  if (!page) return
  event.preventDefault()
  void router.push({ name: 'guide', params: { page } })
}
const at = computed(() => ORDER.indexOf(props.page))
</script>

<template>
  <div class="guide">
    <nav aria-label="Pages of the guide">
      <router-link v-for="p in ORDER" :key="p" :to="{ name: 'guide', params: { page: p } }">
        {{ nameOf(p) }}
      </router-link>
    </nav>
    <p v-if="missing" class="lamp" role="alert">There is no such page: choose one of the list.</p>
    <!-- eslint-disable-next-line vue/no-v-html -- our own pages, made into HTML when the application is built -->
    <article v-else ref="text" @click="follow" v-html="html" />
    <p v-if="at >= 0 && at < ORDER.length - 1" class="next">
      Next:
      <router-link class="link" :to="{ name: 'guide', params: { page: ORDER[at + 1]! } }">
        {{ nameOf(ORDER[at + 1]!) }}
      </router-link>
    </p>
  </div>
</template>

<style scoped>
.guide {
  display: grid;
  grid-template-columns: 150px minmax(0, 760px);
  gap: 0 44px;
  padding: 30px 32px 60px;
  align-items: start;
}
nav {
  position: sticky;
  top: 30px;
  grid-row: 1 / 3;
  display: grid;
  gap: 2px;
}
nav a {
  padding: 5px 10px;
  border-left: 2px solid transparent;
  color: inherit;
  text-decoration: none;
}
nav a:hover {
  text-decoration: underline;
}
nav a.router-link-active {
  border-left-color: rgb(var(--v-theme-cedar));
  font-weight: 600;
}
.next {
  margin-top: 26px;
}
article {
  font-size: var(--text-l);
  line-height: 1.55;
}
article :deep(h1) {
  margin-bottom: 14px;
}
article :deep(h2) {
  margin: 26px 0 6px;
  font-size: var(--title-s);
}
article :deep(p) {
  margin: 0 0 12px;
}
article :deep(ul) {
  padding-left: 20px;
  margin-bottom: 12px;
}
article :deep(li) {
  margin-bottom: 6px;
}
article :deep(img) {
  display: block;
  width: 100%;
  margin: 4px 0 6px;
  border: var(--line);
  border-radius: var(--corner);
}
article :deep(a) {
  color: rgb(var(--v-theme-rain));
}
article :deep(table) {
  border-collapse: collapse;
  margin: 6px 0 16px;
}
article :deep(:is(td, th)) {
  padding: 5px 18px 5px 0;
  border-bottom: var(--line);
  text-align: left;
}
article :deep(th) {
  font-weight: 500;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
}
@media (max-width: 820px) {
  .guide {
    grid-template-columns: minmax(0, 1fr);
  }
  nav {
    position: static;
    grid-row: auto;
    display: flex;
    flex-wrap: wrap;
    margin-bottom: 16px;
  }
}
</style>
