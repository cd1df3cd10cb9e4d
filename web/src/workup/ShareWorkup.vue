<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import ChoiceField from '@/shared/ui/fields/ChoiceField.vue'
import DialogBox from '@/shared/ui/DialogBox.vue'
import PlainTable from '@/shared/ui/PlainTable.vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, got, type Told } from '@/shared/api/client'
import { useSession } from '@/session/useSession'
import { useWorkup } from './useWorkup'

/** Which colleagues may read or edit this workup; and giving it away. */
const emit = defineEmits<{ close: [] }>()
const { id, open } = useWorkup()
const { who } = useSession()
const client = useQueryClient()
const router = useRouter()
const colleagues = useQuery({ queryKey: ['colleagues'], queryFn: () => got(api.GET('/api/colleagues')) })
const shares = useQuery({
  queryKey: ['workup', id, 'shares'],
  queryFn: () =>
    got(api.GET('/api/workups/{workup_id}/shares', { params: { path: { workup_id: id.value } } })),
})
const others = computed(() =>
  (colleagues.data.value ?? []).filter(
    (c) => c.account_id !== who.value?.account_id && c.name !== open.data.value?.whose,
  ),
)
const sharedFor = (account: number) => {
  const share = shares.data.value?.find((s) => s.account_id === account)
  return share ? (share.may_edit ? 'edit' : 'read') : ''
}
const fault = ref('')
async function act(work: () => Promise<unknown>) {
  fault.value = ''
  try {
    await work()
    await client.invalidateQueries({ queryKey: ['workup', id.value, 'shares'] })
    return true
  } catch (error) {
    fault.value = (error as Told).message
    return false
  }
}
function share(account: number, way: string) {
  const path = { params: { path: { workup_id: id.value, account_id: account } } }
  return act(() =>
    way
      ? got(
          api.PUT('/api/workups/{workup_id}/shares/{account_id}', {
            ...path,
            body: { may_edit: way === 'edit' },
          }),
        )
      : got(api.DELETE('/api/workups/{workup_id}/shares/{account_id}', path)),
  )
}
const to = ref('')
const sure = ref(false)
const toName = computed(() => others.value.find((c) => String(c.account_id) === to.value)?.name)
async function handOver() {
  const done = await act(() =>
    got(
      api.POST('/api/workups/{workup_id}/owner', {
        params: { path: { workup_id: id.value } },
        body: { account_id: Number(to.value) },
      }),
    ),
  )
  if (!done) return
  await client.invalidateQueries({ queryKey: ['workups'] })
  await router.push('/workups')
}
</script>

<template>
  <DialogBox title="Share with colleagues" :width="560" @close="emit('close')">
    <PlainTable v-if="others.length" class="framed" aria-label="Colleagues">
      <tbody>
        <tr v-for="c in others" :key="c.account_id">
          <td>{{ c.name }}</td>
          <td class="way">
            <ChoiceField
              :model-value="sharedFor(c.account_id)"
              :aria-label="`What ${c.name} may do`"
              @chosen="share(c.account_id, $event)"
            >
              <option value="">does not see it</option>
              <option value="read">may read it</option>
              <option value="edit">may edit it</option>
            </ChoiceField>
          </td>
        </tr>
      </tbody>
    </PlainTable>
    <p v-else class="quiet">There are no colleagues yet: a manager adds them under Settings, Accounts.</p>
    <form v-if="others.length" class="give framed" @submit.prevent="handOver">
      <label>
        Give it to
        <ChoiceField v-model="to" @chosen="sure = false">
          <option value="">nobody</option>
          <option v-for="c in others" :key="c.account_id" :value="String(c.account_id)">{{ c.name }}</option>
        </ChoiceField>
      </label>
      <ActButton v-if="to && !sure" @click="sure = true">Hand it over</ActButton>
      <template v-if="to && sure">
        <span>It will be {{ toName }}’s, with its history and what was delivered.</span>
        <ActButton strong type="submit">Yes, hand it over</ActButton>
      </template>
    </form>
    <p v-if="fault" class="clay small" role="alert">{{ fault }}</p>
  </DialogBox>
</template>

<style scoped>
table {
  width: 100%;
}
.way {
  text-align: right;
}
.give {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 16px;
}
</style>
