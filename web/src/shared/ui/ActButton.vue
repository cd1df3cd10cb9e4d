<script setup lang="ts">
/**
 * Something to do, with words. strong: what one most likely wants here, once a view; plain: without a frame, for a row of
 * tools. With `href` it is a link that looks the same.
 */
defineProps<{ strong?: boolean; plain?: boolean; icon?: string; disabled?: boolean }>()
</script>

<template>
  <v-btn
    class="do"
    :class="{ plain, strong }"
    :variant="strong ? 'flat' : plain ? 'text' : 'outlined'"
    :color="strong ? 'primary' : plain ? undefined : 'rain'"
    :disabled="disabled"
    :prepend-icon="icon"
    :ripple="false"
    size="small"
  >
    <slot />
  </v-btn>
</template>

<style scoped>
.do {
  height: 32px;
  min-width: 0;
  padding: 0 14px;
  border-radius: var(--corner);
  font-size: var(--text);
  font-weight: 600;
}
.do.plain {
  height: 28px;
  padding: 0 10px;
  font-size: var(--text-s);
  font-weight: 500;
}
</style>
