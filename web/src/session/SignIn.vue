<script setup lang="ts">
import { served } from '@/shared/servicePath'
import { vFocus } from '@/shared/vFocus'
import ActButton from '@/shared/ui/ActButton.vue'
import LabelledField from '@/shared/ui/fields/LabelledField.vue'
import { computed, ref } from 'vue'
import type { Told } from '@/shared/api/client'
import { useSession } from './useSession'

/** Before everything else, where somebody has to sign in; where nobody can yet, the first account is made here. */
const { session, signIn, makeFirst } = useSession()
const first = computed(() => !!session.data.value?.first)
const code = ref('')
const name = ref('')
const password = ref('')
const fault = ref<Told | null>(null)
const busy = ref(false)
async function go() {
  fault.value = null
  busy.value = true
  try {
    await (first.value
      ? makeFirst(code.value, name.value, password.value)
      : signIn(name.value, password.value))
    password.value = ''
  } catch (error) {
    fault.value = error as Told
  }
  busy.value = false
}
</script>

<template>
  <main class="door">
    <form class="sheet box" @submit.prevent="go">
      <img :src="served('/icon.svg')" alt="" width="44" height="44" />
      <h1>{{ first ? 'Make the first account' : 'Rain Porch' }}</h1>
      <p v-if="first" class="quiet">
        It is yours: it keeps what is in this folder, and lets colleagues in. The code stands where Rain Porch
        was started.
      </p>
      <LabelledField
        v-if="first"
        v-model="code"
        v-focus
        label="Code"
        required
        autocomplete="off"
        maxlength="40"
        spellcheck="false"
      />
      <LabelledField
        v-model="name"
        v-focus="!first"
        label="Name"
        required
        autocomplete="username"
        maxlength="80"
      />
      <LabelledField
        v-model="password"
        label="Password"
        type="password"
        required
        maxlength="200"
        :autocomplete="first ? 'new-password' : 'current-password'"
      />
      <p v-if="first" class="quiet small">Ten signs or more; several words are good.</p>
      <p v-if="fault" class="clay" role="alert">{{ fault.message }}</p>
      <ActButton strong type="submit" :disabled="busy">
        {{ busy ? 'One moment …' : first ? 'Make it and sign in' : 'Sign in' }}
      </ActButton>
      <p v-if="!first" class="quiet small">
        Forgotten? A manager of your office gives you a new password under Settings.
      </p>
    </form>
  </main>
</template>

<style scoped>
.door {
  position: fixed;
  inset: 0;
  z-index: 30;
  display: grid;
  place-items: center;
  background: rgb(var(--v-theme-background));
}
.box {
  display: grid;
  gap: 12px;
  width: 360px;
  padding: 28px 30px 26px;
}
h1 {
  font-size: var(--title-l);
}
</style>
