<script setup lang="ts">
import { served } from '@/shared/servicePath'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Told } from '@/shared/api/client'
import { counted, day } from '@/shared/format'

/** Links by which a client reads this very paper without an account, each until its day. */
const props = defineProps<{ delivery: number }>()
const client = useQueryClient()
const path = computed(() => ({ params: { path: { delivery_id: props.delivery } } }))
const key = ['links', computed(() => props.delivery)]
const list = useQuery({
  queryKey: key,
  queryFn: () => got(api.GET('/api/deliveries/{delivery_id}/links', path.value)),
})
const days = ref(30)
const fresh = ref('')
const said = ref('')
const fault = ref('')
async function act(work: () => Promise<void>) {
  fault.value = said.value = ''
  try {
    await work()
  } catch (error) {
    fault.value = (error as Told).message
  }
  await client.invalidateQueries({ queryKey: ['links'] })
}
const make = () =>
  act(async () => {
    const made = await got(
      api.POST('/api/deliveries/{delivery_id}/links', { ...path.value, body: { days: days.value } }),
    )
    fresh.value = `${window.location.origin}${served(made.path)}`
    try {
      await navigator.clipboard.writeText(fresh.value)
      said.value = 'Copied. It is shown this once.'
    } catch {
      said.value = 'Copy it now: it is shown this once.'
    }
  })
const withdraw = (link: number) =>
  act(async () => {
    await got(api.DELETE('/api/links/{link_id}', { params: { path: { link_id: link } } }))
    fresh.value = ''
  })
</script>

<template>
  <div class="links framed">
    <p>
      <ActButton plain @click="make">Make a link</ActButton>
      for
      <ChoiceField v-model="days" aria-label="For how long">
        <option v-for="n in [7, 30, 90]" :key="n" :value="n">{{ n }} days</option>
      </ChoiceField>
    </p>
    <TextField
      v-if="fresh"
      v-model="fresh"
      readonly
      aria-label="The link"
      @focus="($event.target as HTMLInputElement).select()"
    />
    <p v-if="said" role="status" class="moss">{{ said }}</p>
    <p v-if="fault" role="alert" class="clay">{{ fault }}</p>
    <p v-for="x in list.data.value ?? []" :key="x.link_id">
      until {{ day(x.until) }},
      {{ x.times_read ? `opened ${counted(x.times_read, 'time')}` : 'not opened yet' }}
      <LinkButton @click="withdraw(x.link_id)">withdraw</LinkButton>
    </p>
  </div>
</template>

<style scoped>
.links {
  display: grid;
  gap: 4px;
  margin-top: 6px;
  white-space: normal;
}
</style>
