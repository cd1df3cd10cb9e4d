<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got } from '@/shared/api/client'
import { sizedWords } from '@/shared/format'
import LinkButton from '@/shared/ui/LinkButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import { useWorkup } from './useWorkup'

/** A figure of the workup that can be pressed: its rule, and the steps to it with the figures filled in. */
const props = withDefaults(
  defineProps<{
    figure: string
    name: string
    of?: string
    listPrice?: number | null
    location?: 'top' | 'bottom start' | 'bottom end'
  }>(),
  { of: '', listPrice: null, location: 'top' },
)
const { id, open } = useWorkup()
const shown = ref<boolean | null>(false)
const told = useQuery({
  queryKey: [
    'worked out',
    id,
    computed(() => [props.figure, props.of, props.listPrice, open.data.value?.revision]),
  ],
  enabled: computed(() => !!shown.value),
  retry: false,
  queryFn: () =>
    got(
      api.GET('/api/workups/{workup_id}/worked-out/{figure}', {
        params: {
          path: { workup_id: id.value, figure: props.figure },
          query: { of: props.of, list_price: props.listPrice },
        },
      }),
    ),
})
const worked = computed(() => told.data.value)
</script>

<template>
  <MenuBox v-model="shown" :location="location">
    <template #press="{ props: activator }">
      <LinkButton v-bind="activator" class="figure" @click.stop>
        <slot /><span class="d-sr-only">: how {{ name }} is worked out</span>
      </LinkButton>
    </template>
    <div class="sheet box" role="dialog" :aria-label="`How ${name} is worked out`">
      <p v-if="told.isError.value" class="clay" role="alert">{{ told.error.value?.message }}</p>
      <p v-else-if="!worked" class="quiet">Working it out …</p>
      <template v-else>
        <p>
          <b>{{ worked.title }}: {{ worked.result }}</b>
        </p>
        <p class="small">{{ worked.rule }}</p>
        <dl class="small steps">
          <template v-for="(s, i) in worked.steps" :key="i">
            <dt class="quiet">{{ s.what }}</dt>
            <dd>{{ s.figures }}</dd>
          </template>
        </dl>
        <p v-if="worked.house_rules?.length" class="small quiet">
          By the house’s rules:
          <template v-for="(r, i) in worked.house_rules" :key="r.label"
            >{{ i ? '; ' : '' }}{{ r.label.toLowerCase() }} {{ sizedWords(r.value, r.unit) }}</template
          >.
        </p>
        <p v-if="worked.more" class="small quiet">{{ worked.more }}</p>
      </template>
    </div>
  </MenuBox>
</template>

<style scoped>
.figure {
  color: inherit;
  font: inherit;
  text-decoration: none;
}
.figure:hover,
.figure:focus-visible {
  text-decoration: underline;
  text-decoration-thickness: 1px;
  text-underline-offset: 3px;
}
.box {
  padding: 12px 16px;
  width: 460px;
  max-height: min(460px, 70vh);
  overflow-y: auto;
  color: rgb(var(--v-theme-slate));
}
.box p + p {
  margin-top: 4px;
}
.steps dd {
  margin: 0;
}
.steps {
  display: grid;
  grid-template-columns: fit-content(150px) minmax(0, 1fr);
  gap: 3px 12px;
  margin: 8px 0;
  font-variant-numeric: tabular-nums;
}
</style>
