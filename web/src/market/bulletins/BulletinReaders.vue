<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import { day } from '@/shared/format'
import CompareDeliveries from '@/workup/clients/CompareDeliveries.vue'
import RecipientFields from '@/workup/clients/RecipientFields.vue'
import type { Bulletin } from './useBulletins'

/** Who reads a bulletin, when it goes out by itself, and as it was made each time. */
const props = defineProps<{ bulletin: Bulletin; id: number; version: number }>()
const emit = defineEmits<{ change: [to: Partial<Bulletin>] }>()
const client = useQueryClient()
const path = computed(() => ({ bulletin_id: props.id }))
const made = useQuery({
  queryKey: ['editions', computed(() => props.id), computed(() => props.version)], // anew once a change is kept
  placeholderData: keepPreviousData,
  queryFn: () => got(api.GET('/api/bulletins/{bulletin_id}/editions', { params: { path: path.value } })),
})
const name = ref('')
const email = ref('')
const fault = ref('')
const busy = ref(false)
const readers = computed(() => props.bulletin.readers ?? [])
function add() {
  if (!email.value.trim()) return
  emit('change', { readers: [...readers.value, { name: name.value.trim(), email: email.value.trim() }] })
  name.value = email.value = ''
}
async function make(send: boolean) {
  fault.value = ''
  busy.value = true
  try {
    await got(
      api.POST('/api/bulletins/{bulletin_id}/editions', { params: { path: path.value }, body: { send } }),
    )
    await client.invalidateQueries({ queryKey: ['editions'] })
    await client.invalidateQueries({ queryKey: ['deliveries'] })
  } catch (error) {
    fault.value = (error as Told).message
  } finally {
    busy.value = false
  }
}
const comparing = ref<Docs['DeliveryDoc'] | null>(null)
const others = ref<Docs['DeliveryDoc'][]>([])
async function compare(id: number) {
  const all = await got(api.GET('/api/deliveries'))
  const editions = made.data.value!.editions.map((e) => e.delivery_id)
  others.value = all.filter((d) => editions.includes(d.delivery_id) && d.delivery_id !== id)
  comparing.value = all.find((d) => d.delivery_id === id) ?? null
}
const DAYS = Array.from({ length: 28 }, (_, i) => i + 1)
</script>

<template>
  <section class="readers framed" aria-label="Readers and editions">
    <h3>Readers</h3>
    <p v-for="(r, i) in readers" :key="r.email" class="reader small">
      <span>{{ r.name || r.email }}</span>
      <span class="quiet">{{ r.name ? r.email : '' }}</span>
      <PressArea
        :aria-label="`Take ${r.name || r.email} away`"
        @click="emit('change', { readers: readers.filter((_, k) => k !== i) })"
      >
        ×
      </PressArea>
    </p>
    <form class="add" @submit.prevent="add">
      <RecipientFields v-model:name="name" v-model:email="email" />
      <ActButton type="submit">Add</ActButton>
    </form>
    <label class="field">
      <span class="quiet small">Words of the message; without any the headline stands in it</span>
      <TypedInput
        :value="bulletin.words"
        :rows="2"
        maxlength="10000"
        aria-label="Words of the message"
        @typed="emit('change', { words: $event })"
      />
    </label>
    <p class="small">
      <label>
        Made and sent by itself
        <ChoiceField
          :model-value="bulletin.day_of_month ?? ''"
          aria-label="Day of the month"
          @chosen="emit('change', { day_of_month: Number($event) || null })"
        >
          <option value="">never</option>
          <option v-for="d in DAYS" :key="d" :value="d">on day {{ d }} of the month</option>
        </ChoiceField>
      </label>
      <span v-if="bulletin.day_of_month && made.data.value" class="quiet">
        {{
          made.data.value.next_due
            ? `looked at next on ${day(made.data.value.next_due)}`
            : 'it rests: see what waits in Settings'
        }}<template v-if="made.data.value.said">; {{ made.data.value.said }}</template>
      </span>
    </p>
    <p class="acts">
      <ActButton :disabled="busy || !readers.length" @click="make(true)">
        Send to {{ readers.length }} {{ readers.length === 1 ? 'reader' : 'readers' }} now
      </ActButton>
      <LinkButton :disabled="busy" @click="make(false)">keep it as it is today</LinkButton>
      <span v-if="busy" class="quiet small">Making it …</span>
    </p>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
    <PlainTable v-if="made.data.value?.editions.length" class="small" aria-label="As it was made">
      <thead>
        <tr>
          <th>Made</th>
          <th>Records through</th>
          <th class="num">Readers</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="e in made.data.value.editions" :key="e.delivery_id">
          <td>{{ day(e.made_at) }}</td>
          <td>{{ day(e.through) }}</td>
          <td class="num">{{ e.readers }}</td>
          <td class="given">
            <a class="link" :href="served(`/api/deliveries/${e.delivery_id}/paper.pdf`)" target="_blank"
              >PDF</a
            >
            <a class="link" :href="served(`/api/deliveries/${e.delivery_id}/paper.html`)" download
              >web page</a
            >
            <LinkButton v-if="made.data.value.editions.length > 1" @click="compare(e.delivery_id)">
              compare
            </LinkButton>
          </td>
        </tr>
      </tbody>
    </PlainTable>
    <CompareDeliveries
      v-if="comparing && others.length"
      :delivery="comparing"
      :others="others"
      @close="comparing = null"
    />
  </section>
</template>

<style scoped>
.readers {
  display: grid;
  gap: 8px;
  padding-top: 12px;
  margin-top: 12px;
  border-top: var(--line);
}
.reader {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) 26px;
  gap: 10px;
}
.reader span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.add {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr) auto;
  gap: 6px;
}
.add {
  align-items: end;
}
.add :deep(label),
.field {
  display: grid;
  font-size: var(--small);
}
.add :deep(input),
.field :deep(textarea) {
  width: 100%;
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
}
.given {
  white-space: nowrap;
}
.given > * + * {
  margin-left: 10px;
}
</style>
