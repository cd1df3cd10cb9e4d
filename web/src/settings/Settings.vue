<script setup lang="ts">
import { useLight } from '@/shared/useTheme'
import DueWork from './DueWork.vue'

const { choice } = useLight()
</script>

<template>
  <div class="pa-8" style="max-width: 860px">
    <h1 class="mb-5">Settings</h1>
    <h2 id="light" class="mb-1">Light</h2>
    <v-radio-group v-model="choice" aria-labelledby="light" hide-details>
      <v-radio label="As the machine has it" value="system" />
      <v-radio label="Day" value="day" />
      <v-radio label="Night" value="night" />
    </v-radio-group>
    <DueWork />
  </div>
</template>
