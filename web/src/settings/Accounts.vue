<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import CheckBox from '@/shared/ui/CheckBox.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import TypedInput from '@/shared/ui/fields/TypedInput.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, got, type Docs, type Told } from '@/shared/api/client'
import { useSession } from '@/session/useSession'
import FirstAccount from './FirstAccount.vue'

/** Who may sign in, and what they may do: for managers. */
type Account = Docs['AccountDoc']
const { session, who } = useSession()
const client = useQueryClient()
const list = useQuery({ queryKey: ['accounts'], queryFn: () => got(api.GET('/api/accounts')) })
const rows = computed(() => list.data.value ?? [])
const fault = ref('')
const said = ref('')
async function act(work: () => Promise<unknown>, done = '') {
  fault.value = said.value = ''
  try {
    await work()
    said.value = done
  } catch (error) {
    fault.value = (error as Told).message
  }
  await client.invalidateQueries({ queryKey: ['accounts'] })
  await client.invalidateQueries({ queryKey: ['colleagues'] })
}
const change = (a: Account, to: Partial<Account>) =>
  act(() =>
    got(
      api.PUT('/api/accounts/{account_id}', {
        params: { path: { account_id: a.account_id } },
        body: { name: a.name, role: a.role, may_import: a.may_import, disabled: a.disabled, ...to },
      }),
    ),
  )
const renewing = ref<number | null>(null)
const password = ref('')
async function renew(a: Account) {
  await act(
    () =>
      got(
        api.PUT('/api/accounts/{account_id}/password', {
          params: { path: { account_id: a.account_id } },
          body: { password: password.value },
        }),
      ),
    `${a.name} has a new password, and is signed out everywhere.`,
  )
  if (!fault.value) renewing.value = null
  password.value = ''
}
const fresh = ref({ name: '', password: '', role: 'agent' as 'agent' | 'manager', may_import: false })
async function add() {
  const name = fresh.value.name
  await act(() => got(api.POST('/api/accounts', { body: fresh.value })), `${name} may sign in now.`)
  if (!fault.value) fresh.value = { name: '', password: '', role: 'agent', may_import: false }
}
</script>

<template>
  <section class="framed" aria-labelledby="accounts">
    <h2 id="accounts" class="mt-8 mb-1">Accounts</h2>
    <FirstAccount v-if="session.data.value?.first" />
    <template v-else>
      <PlainTable aria-label="Accounts">
        <thead>
          <tr>
            <th>Name</th>
            <th>Role</th>
            <th>Brings records in</th>
            <th>May sign in</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="a in rows" :key="a.account_id">
            <td>
              <TypedInput
                :value="a.name"
                :aria-label="`Name of ${a.name}`"
                maxlength="80"
                @typed="change(a, { name: $event })"
              />
            </td>
            <td>
              <ChoiceField
                :model-value="a.role"
                :aria-label="`Role of ${a.name}`"
                @chosen="change(a, { role: $event as 'agent' })"
              >
                <option value="agent">agent</option>
                <option value="manager">manager</option>
              </ChoiceField>
            </td>
            <td>
              <CheckBox
                :model-value="a.may_import || a.role === 'manager'"
                :disabled="a.role === 'manager'"
                :aria-label="`${a.name} brings records in`"
                @update:model-value="change(a, { may_import: !!$event })"
              />
            </td>
            <td>
              <CheckBox
                :model-value="!a.disabled && a.signs_in"
                :disabled="!a.signs_in || a.account_id === who?.account_id"
                :aria-label="`${a.name} may sign in`"
                @update:model-value="change(a, { disabled: !$event })"
              />
              <span v-if="!a.signs_in" class="quiet small">no password yet</span>
            </td>
            <td>
              <form v-if="renewing === a.account_id" class="acts" @submit.prevent="renew(a)">
                <TextField
                  v-model="password"
                  type="password"
                  required
                  autocomplete="new-password"
                  maxlength="200"
                  :aria-label="`New password of ${a.name}`"
                  placeholder="ten signs or more"
                />
                <ActButton plain type="submit">Give it</ActButton>
                <ActButton plain @click="renewing = null">Cancel</ActButton>
              </form>
              <ActButton v-else-if="a.account_id !== who?.account_id" plain @click="renewing = a.account_id">
                New password
              </ActButton>
            </td>
          </tr>
        </tbody>
      </PlainTable>
      <form class="new" aria-label="A new account" @submit.prevent="add">
        <label>Name <TextField v-model="fresh.name" required maxlength="80" autocomplete="off" /></label>
        <label>
          Password
          <TextField
            v-model="fresh.password"
            type="password"
            required
            autocomplete="new-password"
            maxlength="200"
            placeholder="ten signs or more"
          />
        </label>
        <label>
          Role
          <ChoiceField v-model="fresh.role">
            <option value="agent">agent</option>
            <option value="manager">manager</option>
          </ChoiceField>
        </label>
        <label class="tick"><CheckBox v-model="fresh.may_import" /> brings records in</label>
        <ActButton type="submit">Add the account</ActButton>
      </form>
      <p v-if="said" class="moss small" role="status">{{ said }}</p>
      <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
      <p class="quiet small">
        An agent sees their own workups, clients and reports, and what colleagues share. A manager sees all,
        brings records in and manages accounts.
      </p>
    </template>
  </section>
</template>

<style scoped>
table {
  width: 100%;
}
.acts {
  display: flex;
  gap: 6px;
}
.new {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  margin: 14px 0 8px;
}
.new label:not(.tick) {
  display: grid;
  font-size: var(--small);
}
.tick {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  height: 30px;
}
</style>
