<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { mdiPrinterOutline } from '@mdi/js'
import { ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import { give } from '@/shared/giving'
import { number } from '@/shared/format'
import type { LookAsk } from './useLook'

/** The look on paper: one page or a packet, a workbook, a table; of the ticked homes, or of all found. */
const props = defineProps<{
  whole: () => LookAsk
  order: () => string[]
  ticked: number
  found: Docs['LookDoc']
}>()
const opened = ref(false)
const of = ref<'chosen' | 'found'>('chosen')
const title = ref('')
const making = ref('')
const fault = ref('')
const WAYS: [string, 'pdf' | 'xlsx' | 'csv', 'page' | 'packet'][] = [
  ['Print one page', 'pdf', 'page'],
  ['Print a packet: figures, map, a line and a sheet a home', 'pdf', 'packet'],
  ['Spreadsheet', 'xlsx', 'page'],
  ['CSV', 'csv', 'page'],
]
async function make(words: string, form: 'pdf' | 'xlsx' | 'csv', layout: 'page' | 'packet') {
  making.value = words
  fault.value = ''
  try {
    const made = await got(
      api.POST('/api/around/paper.{form}', {
        params: { path: { form } },
        body: { ...props.whole(), of: of.value, title: title.value, layout, order: props.order() },
        parseAs: 'blob',
      }),
    )
    give(made as Blob, `${title.value || props.found.title}.${form}`)
    opened.value = false
  } catch (error) {
    fault.value = (error as Told).message
  } finally {
    making.value = ''
  }
}
const all = () => Object.values(props.found.counts).reduce((sum, n) => sum + n, 0)
</script>

<template>
  <MenuBox v-model="opened">
    <template #press="{ props: activator }">
      <ActButton v-bind="activator" :icon="mdiPrinterOutline" plain>On paper</ActButton>
    </template>
    <div class="sheet papers framed" role="dialog" aria-label="On paper">
      <label v-if="ticked" class="small">
        Of
        <ChoiceField v-model="of" aria-label="Of which homes">
          <option value="chosen">the {{ ticked }} ticked</option>
          <option value="found">all {{ number(all()) }} found</option>
        </ChoiceField>
      </label>
      <p v-else class="quiet small">Of all {{ number(all()) }} found. Tick some to speak of these alone.</p>
      <label class="small">
        Title
        <TextField v-model="title" aria-label="Title" maxlength="120" placeholder="as it stands above" />
      </label>
      <ActButton
        v-for="[words, form, layout] in WAYS"
        :key="words"
        plain
        :disabled="!!making"
        @click="make(words, form, layout)"
      >
        {{ making === words ? 'Making it …' : words }}
      </ActButton>
      <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    </div>
  </MenuBox>
</template>

<style scoped>
.papers {
  display: grid;
  gap: 8px;
  justify-items: start;
  width: 420px;
  padding: 12px 14px;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
