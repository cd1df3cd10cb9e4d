<script setup lang="ts">
/** A small picture to press; `name` says what it does to those who see it and to those who hear it. */
withDefaults(defineProps<{ icon: string; name: string; title?: string; size?: string }>(), {
  size: 'x-small',
})
</script>

<template>
  <v-btn :icon="icon" :size="size" :aria-label="name" :title="title ?? name" :ripple="false" />
</template>
