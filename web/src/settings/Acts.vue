<script setup lang="ts">
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs } from '@/shared/api/client'
import { moment } from '@/shared/format'

/** Who did what, when: for managers. The same within some minutes is one line. */
const of = ref('')
const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => got(api.GET('/api/accounts')) })
const list = useQuery({
  queryKey: ['acts', of],
  queryFn: () =>
    got(api.GET('/api/acts', { params: { query: { account_id: Number(of.value) || undefined } } })),
  staleTime: 0,
})
const most = ref(12)
const rows = computed(() => (list.data.value ?? []).slice(0, most.value))
const when = (a: Docs['ActDoc']) =>
  a.first_at === a.last_at || a.times === 1
    ? moment(a.last_at)
    : `${moment(a.first_at)} to ${moment(a.last_at)}`
</script>

<template>
  <section class="framed" aria-labelledby="acts">
    <h2 id="acts" class="mt-8 mb-1">Who did what</h2>
    <p v-if="(accounts.data.value ?? []).length > 1" class="mb-2">
      <label>
        Of
        <ChoiceField v-model="of">
          <option value="">everybody</option>
          <option v-for="a in accounts.data.value" :key="a.account_id" :value="String(a.account_id)">
            {{ a.name }}
          </option>
        </ChoiceField>
      </label>
    </p>
    <PlainTable v-if="rows.length" aria-label="Who did what">
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th class="num">Times</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="a in rows" :key="a.act_id">
          <td>{{ when(a) }}</td>
          <td>{{ a.name }}</td>
          <td>
            {{ a.what }}
            <router-link
              v-if="a.of_what.startsWith('workup ')"
              :to="{ name: 'comps', params: { id: a.of_what.slice(7) } }"
              >{{ a.title || a.of_what }}</router-link
            >
            <template v-else>{{ a.of_what }}</template>
          </td>
          <td class="num">{{ a.times > 1 ? a.times : '' }}</td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-else-if="list.isSuccess.value" class="quiet">Nothing has been done yet.</p>
    <p v-if="(list.data.value ?? []).length > most" class="mt-2">
      <LinkButton @click="most += 100">Show more</LinkButton>
    </p>
  </section>
</template>

<style scoped>
table {
  width: 100%;
}
td a {
  color: inherit;
}
</style>
