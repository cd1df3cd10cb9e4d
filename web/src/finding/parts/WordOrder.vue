<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import LinkButton from '@/shared/ui/LinkButton.vue'
import TextField from '@/shared/ui/fields/TextField.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, got, Told } from '@/shared/api/client'

/** The words of a field of the office's own from least to most: asked once, for everybody. */
const props = defineProps<{ field: string; order: string[] }>()
const client = useQueryClient()
const open = ref(false)
const text = ref('')
const fault = ref('')
async function ask() {
  const known = await got(api.GET('/api/words', { params: { query: { field: props.field } } }))
  text.value = [...props.order, ...Object.keys(known).filter((w) => !props.order.includes(w))].join(', ')
  open.value = true
}
async function keep() {
  fault.value = ''
  try {
    const words = text.value
      .split(',')
      .map((w) => w.trim())
      .filter((w) => w)
    await got(
      api.PUT('/api/records/word-orders/{field}', {
        params: { path: { field: props.field } },
        body: { words },
      }),
    )
    await client.invalidateQueries() // the records have changed: every figure that is shown is asked for anew
    open.value = false
  } catch (error) {
    fault.value = (error as Told).message
  }
}
</script>

<template>
  <LinkButton v-if="!open" class="small" @click="ask">
    {{ order.length ? 'change their order' : 'these words have an order' }}
  </LinkButton>
  <form v-else class="order framed" @submit.prevent="keep">
    <label class="small">From least to most, with commas; empty for none</label>
    <TextField v-model="text" aria-label="Words from least to most" />
    <ActButton type="submit">Keep the order</ActButton>
    <span v-if="fault" class="clay small" role="alert">{{ fault }}</span>
  </form>
</template>

<style scoped>
.order {
  display: grid;
  gap: 6px;
  margin-top: 6px;
}
</style>
