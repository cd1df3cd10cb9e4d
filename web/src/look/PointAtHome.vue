<script setup lang="ts">
import { later } from '@/shared/useReaching'
import { useHomeKinds } from '@/shared/useFields'
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, type Told } from '@/shared/api/client'
import { sizedWords } from '@/shared/format'

/** A home found by its place: the house is dragged on the map; what stands there is opened, or entered by hand. */
const HomeMap = later(() => import('@/shared/map/HomeMap.vue'))
const router = useRouter()
const start = useQuery({
  queryKey: ['middle'],
  queryFn: () => got(api.GET('/api/map/middle')),
  staleTime: Infinity,
})
const place = ref<{ latitude: number; longitude: number } | null>(null)
const at = computed(() => place.value ?? start.data.value)
const nearest = useQuery({
  queryKey: ['nearest', place],
  queryFn: () => got(api.GET('/api/nearest', { params: { query: place.value! } })),
  enabled: computed(() => !!place.value),
})
const kinds = useHomeKinds()
const hit = computed(() => nearest.data.value?.hits[0])
const address = ref('')
const kind = ref('detached')
const failed = ref('')
async function attempt(work: () => Promise<number>) {
  failed.value = ''
  try {
    await router.push({ name: 'home', params: { id: await work() } })
  } catch (error) {
    failed.value = (error as Told).message
  }
}
const openIt = () =>
  attempt(async () => {
    const { kind: of, key } = hit.value!
    return (await got(api.POST('/api/workups', { body: { kind: of as 'parcel', key } }))).workup_id
  })
const enter = () =>
  attempt(
    async () =>
      (
        await got(
          api.POST('/api/workups/by-hand', {
            body: { ...place.value!, address: address.value, home_kind: kind.value },
          }),
        )
      ).workup_id,
  )
</script>

<template>
  <div class="page">
    <div class="side">
      <h1>Where is it?</h1>
      <p>Click where the home stands, or drag the house there.</p>
      <template v-if="place">
        <section v-if="hit">
          <h2>In the records there</h2>
          <p>
            <ActButton @click="openIt">Open {{ hit.shown }}</ActButton>
          </p>
        </section>
        <p v-else-if="nearest.isSuccess.value" class="quiet">
          No home of the records stands within {{ sizedWords(0.15, 'miles') }}.
        </p>
        <p>
          <router-link
            class="link"
            :to="{
              name: 'around',
              query: { at: `${place.latitude.toFixed(5)},${place.longitude.toFixed(5)}` },
            }"
          >
            Only look around this place
          </router-link>
        </p>
        <form @submit.prevent="enter">
          <h2>{{ hit ? 'Or another home, by hand' : 'Enter it by hand' }}</h2>
          <label>
            Address
            <TextField v-model="address" maxlength="200" placeholder="how it is to be called" />
          </label>
          <label>
            Kind
            <ChoiceField v-model="kind">
              <option v-for="(words, k) in kinds.data.value ?? {}" :key="k" :value="k">{{ words }}</option>
            </ChoiceField>
          </label>
          <ActButton type="submit" :disabled="!address.trim()" strong>Begin with it</ActButton>
          <p class="quiet small">
            Its facts are entered in the Home room; what stays unknown adjusts nothing.
          </p>
        </form>
      </template>
      <p v-if="failed" class="lamp" role="alert">{{ failed }}</p>
    </div>
    <HomeMap
      v-if="at"
      :subject="at"
      :candidates="[]"
      :zoom="15.6"
      movable
      @home="(latitude, longitude) => (place = { latitude, longitude })"
    />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 340px 1fr;
  height: 100%;
  background: rgb(var(--v-theme-surface));
}
.side {
  display: grid;
  gap: 14px;
  align-content: start;
  padding: 22px 24px;
}
form {
  display: grid;
  gap: 10px;
}
label {
  display: grid;
  gap: 3px;
  font-size: var(--text-s);
  color: rgb(var(--v-theme-quiet));
}
input,
select {
  height: 34px;
  padding: 0 9px;
  border: var(--line);
  border-radius: var(--corner);
  color: rgb(var(--v-theme-slate));
  background: rgb(var(--v-theme-surface));
}
h2 {
  margin-bottom: 4px;
}
</style>
