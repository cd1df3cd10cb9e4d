<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LookupList from '@/shared/ui/LookupList.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import TextField from '@/shared/ui/TextField.vue'
import { vFocus } from '@/shared/vFocus'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useLookup, type Hit } from '@/shared/useLookup'

/** A home for a look that has none: the search stays, distances and likeness are from it. */
const route = useRoute()
const router = useRouter()
const opened = ref(false)
const text = ref('')
const at = ref(0)
const { hits, nearest, nothing } = useLookup(text)
const homes = computed(() =>
  (hits.value.length ? hits.value : nearest.value).filter((h) => h.kind === 'parcel' || h.kind === 'listing'),
)
function take(hit: Hit) {
  opened.value = false
  void router.push({ name: 'around', query: { kind: hit.kind, key: hit.key }, hash: route.hash })
}
function key(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') at.value = Math.min(at.value + 1, homes.value.length - 1)
  else if (event.key === 'ArrowUp') at.value = Math.max(at.value - 1, 0)
  else if (event.key === 'Enter' && homes.value[at.value]) take(homes.value[at.value]!)
  else return
  event.preventDefault()
}
</script>

<template>
  <MenuBox v-model="opened">
    <template #press="{ props: activator }">
      <ActButton v-bind="activator" plain title="Look from a home: distances and differences are from it">
        Give it a home
      </ActButton>
    </template>
    <div class="sheet give" role="dialog" aria-label="Give it a home">
      <TextField
        v-model="text"
        v-focus
        autocomplete="off"
        aria-label="Address or number"
        placeholder="Address or number"
        @input="at = 0"
        @keydown="key"
      />
      <LookupList
        v-if="text.trim().length > 1"
        id="give-home"
        plain
        :hits="homes"
        :nearest="[]"
        :nothing="nothing && !homes.length"
        :at="at"
        :text="text"
        @open="take"
      />
    </div>
  </MenuBox>
</template>

<style scoped>
.give {
  width: 360px;
  padding: 12px;
}
input {
  width: 100%;
  padding: 7px 10px;
  border: var(--line);
  border-radius: var(--corner);
  color: inherit;
}
</style>
