<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import IconButton from '@/shared/ui/IconButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { mdiArrowDown, mdiArrowUp, mdiClose, mdiTableColumn } from '@mdi/js'
import { computed, ref } from 'vue'
import { useColumns } from './useColumns'

const { shown, others, add, drop, move, usual } = useColumns()
const text = ref('')
const field = ref<HTMLInputElement>()
/** The button that was pressed is gone with it: the focus goes back to the field, so that keys may go on. */
function take(key: string) {
  add(key)
  field.value?.focus()
}
const offered = computed(() =>
  others.value.filter((c) => c.label.toLowerCase().includes(text.value.trim().toLowerCase())),
)
</script>

<template>
  <MenuBox>
    <template #press="{ props }">
      <ActButton v-bind="props" :icon="mdiTableColumn" plain>Columns</ActButton>
    </template>
    <div class="sheet menu" role="dialog" aria-label="Columns of the table">
      <div>
        <h3>Shown</h3>
        <ul aria-label="Columns that are shown">
          <li v-for="(c, i) in shown" :key="c.key">
            <span>{{ c.label }}</span>
            <IconButton
              :icon="mdiArrowUp"
              size="x-small"
              :disabled="!i"
              :name="`${c.label} further left`"
              @click="move(c.key, -1)"
            />
            <IconButton
              :icon="mdiArrowDown"
              size="x-small"
              :disabled="i === shown.length - 1"
              :name="`${c.label} further right`"
              @click="move(c.key, 1)"
            />
            <IconButton :icon="mdiClose" size="x-small" :name="`Hide ${c.label}`" @click="drop(c.key)" />
          </li>
        </ul>
        <LinkButton class="small" @click="usual">back to the usual ones</LinkButton>
      </div>
      <div>
        <h3>More</h3>
        <TextField ref="field" v-model="text" placeholder="find a field" aria-label="Find a field" />
        <ul class="more" aria-label="Columns that may be shown">
          <li v-for="c in offered" :key="c.key">
            <LinkButton :aria-label="`Show ${c.label}`" @click="take(c.key)">
              {{ c.label }}
            </LinkButton>
          </li>
        </ul>
      </div>
    </div>
  </MenuBox>
</template>

<style scoped>
.menu {
  display: grid;
  grid-template-columns: 250px 210px;
  gap: 20px;
  padding: 12px 16px;
  max-height: 400px;
  overflow: auto;
}
h3 {
  font-size: var(--text-s);
  font-weight: 600;
  margin-bottom: 4px;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  min-height: 25px;
}
li .v-btn {
  width: 26px;
  height: 24px;
}
li span {
  flex: 1;
}
.more {
  max-height: 340px;
  overflow: auto;
}
input {
  width: 100%;
  padding: 4px 8px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
