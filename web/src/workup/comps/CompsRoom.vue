<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import FindingRoom from '@/finding/FindingRoom.vue'
import { provideChoosing } from '@/finding/useChoosing'
import { provideFinding } from '@/finding/useFinding'
import { useWorkup } from '../useWorkup'
import AddHome from './AddHome.vue'
import SetAside from './SetAside.vue'
import { useWorkupFinding } from './useWorkupFinding'

/** The room of homes with what a workup adds: decisions, help that touches none of them, homes by their number. */
const { found, foundNow, choiceOf, decide } = useWorkup()
const choosing = provideChoosing(provideFinding(useWorkupFinding()))
const { asking } = choosing
const room = ref<InstanceType<typeof FindingRoom>>()
/** The most alike sales that nothing has been decided on: help never touches a decision. */
const suggested = computed(() =>
  (found.data.value?.suggested ?? []).filter((k) => choiceOf(k) === 'undecided'),
)
/** Pressed while a change of the search or the day is on its way, it keeps those that are found then. */
async function keepMostAlike() {
  await foundNow()
  if (suggested.value.length) await decide(suggested.value, 'kept')
}
// a home that another place of the workup names, such as an end of the rail, opens here
const route = useRoute()
const router = useRouter()
watch(
  [() => route.query.home, room, () => room.value?.shown],
  ([key, now]) => {
    if (typeof key !== 'string' || !now) return
    now.show(key) // it may stand among those not kept
    if (!now.listed(key)) return
    now.show(key, true)
    void router.replace({ query: {} })
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <FindingRoom ref="room" :choosing="choosing">
    <template #first>
      <ActButton
        v-if="suggested.length"
        title="The most alike sales that you have not decided on"
        @click="keepMostAlike"
      >
        Keep the {{ suggested.length }} most alike
      </ActButton>
      <AddHome @added="room?.show($event)" />
    </template>
    <template #over="{ setAside }">
      <SetAside
        v-if="asking"
        :name="asking.address || asking.listing_id"
        @done="setAside"
        @close="asking = null"
      />
    </template>
  </FindingRoom>
</template>
