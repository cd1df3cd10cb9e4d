<script setup lang="ts">
import { ref } from 'vue'

/** What opens beside the thing that was pressed, and closes by a press elsewhere or by Escape. */
withDefaults(
  defineProps<{ location?: 'top' | 'bottom start' | 'bottom end'; activator?: Element | null }>(),
  {
    location: 'bottom end',
    activator: undefined,
  },
)
const opened = defineModel<boolean | null>({ default: null })
const own = ref(false)
</script>

<template>
  <v-menu
    :model-value="opened ?? own"
    :activator="activator ?? undefined"
    :open-on-click="!activator"
    :close-on-content-click="false"
    :location="location"
    offset="6"
    @update:model-value="((own = $event), (opened = $event))"
  >
    <template v-if="$slots.press" #activator="{ props }"><slot name="press" :props="props" /></template>
    <slot />
  </v-menu>
</template>
