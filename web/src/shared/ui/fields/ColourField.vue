<script setup lang="ts">
/** A colour, picked as the machine picks colours; given once the picking is over. */
defineProps<{ colour: string }>()
const emit = defineEmits<{ picked: [colour: string] }>()
</script>

<template>
  <input type="color" :value="colour" @change="emit('picked', ($event.target as HTMLInputElement).value)" />
</template>
