<script setup lang="ts">
import { computed, ref } from 'vue'
import { served } from '@/shared/servicePath'
import { typedTime } from '@/shared/typed'
import ActButton from '@/shared/ui/ActButton.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import DateField from '@/shared/ui/fields/DateField.vue'
import ReadField from '@/shared/ui/fields/ReadField.vue'

/** The appointment at the home, as a note for any calendar. */
const props = defineProps<{ id: number }>()
defineEmits<{ close: [] }>()
const on = ref<string | null>(null)
const at = ref('18:00')
const note = computed(() =>
  on.value && at.value
    ? served(`/api/workups/${props.id}/appointment.ics?at=${on.value}T${at.value}`)
    : undefined,
)
const noTime = (text: string) => `“${text.trim()}” is no time of day: type it like 6:30 pm or 18:30.`
</script>

<template>
  <DialogBox title="The appointment" :width="420" @close="$emit('close')">
    <div class="side-sheet framed">
      <label>Day <DateField :value="on" aria-label="Day of the appointment" @date="on = $event" /></label>
      <label>
        Time
        <ReadField
          :value="at"
          :read="typedTime"
          :told="noTime"
          aria-label="Time of the appointment"
          @read="at = String($event ?? '')"
        />
      </label>
      <p class="quiet small">An hour at the home, as a file that any calendar takes in. Nothing is sent.</p>
      <ActButton strong :href="note" :disabled="!note" download>Calendar note</ActButton>
    </div>
  </DialogBox>
</template>
