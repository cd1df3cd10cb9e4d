<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import HomeSearch from '@/shared/ui/HomeSearch.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Hit } from '@/shared/useLookup'

/** A home for a look that has none: the search stays, distances and likeness are from it. */
const route = useRoute()
const router = useRouter()
const opened = ref(false)
const text = ref('')
function take(hit: Hit) {
  opened.value = false
  void router.push({ name: 'around', query: { kind: hit.kind, key: hit.key }, hash: route.hash })
}
</script>

<template>
  <MenuBox v-model="opened">
    <template #press="{ props: activator }">
      <ActButton v-bind="activator" plain title="Look from a home: distances and differences are from it">
        Give it a home
      </ActButton>
    </template>
    <div class="sheet give framed" role="dialog" aria-label="Give it a home">
      <HomeSearch id="give-home" v-model="text" label="Address or number" @take="take" />
    </div>
  </MenuBox>
</template>

<style scoped>
.give {
  width: 360px;
  padding: 12px;
}
</style>
