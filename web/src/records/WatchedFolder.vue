<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import { day } from '@/shared/format'
import { rhythmOf } from '@/shared/rhythms'
import { useRecordsChanged } from './useRecords'

/** What is put into the folder of a source comes in by itself; what cannot waits, and says why. */
const props = defineProps<{ inbox: Docs['InboxDoc']; rhythms: [string, string][] }>()
const changed = useRecordsChanged()
const again = ref('')
const looking = ref(false)
const said = ref('')
const fault = ref('')
const shown = computed(() => props.inbox.files.slice(0, 8))
async function look() {
  looking.value = true
  said.value = fault.value = ''
  try {
    const before = new Map(props.inbox.files.map((f) => [`${f.source}/${f.name}`, f.looked_at]))
    const now = await got(
      api.POST('/api/records/inbox', {
        body: { again_every: rhythmOf(again.value) },
      }),
    )
    const fresh = now.files.filter((f) => before.get(`${f.source}/${f.name}`) !== f.looked_at)
    said.value = fresh.length
      ? `${fresh.filter((f) => !f.held).length} came in, ${fresh.filter((f) => f.held).length} wait for you.`
      : 'Nothing new lies there.'
    await changed()
  } catch (error) {
    fault.value = (error as Told).message
  } finally {
    looking.value = false
  }
}
</script>

<template>
  <form class="sheet side-sheet framed" @submit.prevent="look">
    <h2>Watched folder</h2>
    <p class="quiet small">
      A file put into a folder named like its source comes in by itself, mapped as the last time.
    </p>
    <p class="small path">{{ inbox.folder }}/<i>source</i>/<i>file</i></p>
    <label>
      Look
      <ChoiceField v-model="again">
        <option v-for="[minutes, words] in rhythms" :key="minutes" :value="minutes">{{ words }}</option>
      </ChoiceField>
    </label>
    <ActButton type="submit" :disabled="looking">{{ looking ? 'Looking …' : 'Look now' }}</ActButton>
    <p v-if="said" class="moss small" role="status">{{ said }}</p>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    <p v-for="f in shown" :key="f.source + f.name" class="small" :class="f.held ? 'lamp' : 'quiet'">
      <b>{{ f.source }}/{{ f.name }}</b
      >, {{ day(f.looked_at.slice(0, 10)) }}: {{ f.outcome }}
    </p>
  </form>
</template>

<style scoped>
.path {
  overflow-wrap: anywhere;
}
</style>
