<script setup lang="ts">
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { day } from '@/shared/format'

/** What changed from one delivery to another of the same home. */
const props = defineProps<{ delivery: Docs['DeliveryDoc']; others: Docs['DeliveryDoc'][] }>()
const emit = defineEmits<{ close: [] }>()
const other = ref(props.others[0]!.delivery_id)
const changes = useQuery({
  queryKey: ['compared', other, computed(() => props.delivery.delivery_id)],
  queryFn: () =>
    got(
      api.GET('/api/deliveries/{delivery_id}/changes/{other_id}', {
        params: { path: { delivery_id: other.value, other_id: props.delivery.delivery_id } },
      }),
    ),
})
</script>

<template>
  <DialogBox title="What changed" :width="640" @close="emit('close')">
    <label class="framed small">
      From the report of
      <ChoiceField :model-value="other" @chosen="other = Number($event)">
        <option v-for="d in others" :key="d.delivery_id" :value="d.delivery_id">
          {{ day(d.made_at) }}{{ d.client ? ` to ${d.client}` : '' }}
        </option>
      </ChoiceField>
      to that of {{ day(delivery.made_at) }}{{ delivery.client ? ` to ${delivery.client}` : '' }}
    </label>
    <p v-if="changes.data.value && !changes.data.value.length" class="mt-3">Nothing that counts changed.</p>
    <PlainTable v-else-if="changes.data.value" class="mt-3" aria-label="What changed">
      <thead>
        <tr>
          <th />
          <th>Was</th>
          <th>Is</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in changes.data.value" :key="c.what">
          <th scope="row">{{ c.what }}</th>
          <td>{{ c.before }}</td>
          <td>{{ c.after }}</td>
        </tr>
      </tbody>
    </PlainTable>
  </DialogBox>
</template>
