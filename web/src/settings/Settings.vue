<script setup lang="ts">
import RadioButton from '@/shared/ui/RadioButton.vue'
import { keysShown } from '@/shared/keys/keyTable'
import LinkButton from '@/shared/ui/LinkButton.vue'
import { useSession } from '@/session/useSession'
import { useLight } from '@/shared/style/useTheme'
import Accounts from './Accounts.vue'
import Acts from './Acts.vue'
import DueWork from './DueWork.vue'
import LocalForm from './LocalForm.vue'
import MailSetUp from './MailSetUp.vue'
import MapSources from './MapSources.vue'

const { choice } = useLight()
const { isManager } = useSession()
const LIGHTS = { system: 'As the machine has it', day: 'Day', night: 'Night' } as const
</script>

<template>
  <div class="pa-8" style="max-width: 860px">
    <h1 class="mb-5">Settings</h1>
    <h2 id="light" class="mb-1">Light</h2>
    <div role="radiogroup" aria-labelledby="light">
      <p v-for="(words, name) in LIGHTS" :key="name">
        <label><RadioButton name="light" :on="choice === name" @taken="choice = name" /> {{ words }}</label>
      </p>
    </div>
    <h2 class="mt-6 mb-1">Keys</h2>
    <p>
      Whatever the mouse does, keys do too:
      <LinkButton @click="keysShown = true">the page of keys</LinkButton>, or press ? wherever nothing is
      typed.
    </p>
    <h2 class="mt-6 mb-1">The guide</h2>
    <p>
      What each room is for, and answers to what agents, managers and sellers ask:
      <RouterLink class="link" :to="{ name: 'guide' }">the guide</RouterLink>.
    </p>
    <h2 class="mt-6 mb-1">House rules</h2>
    <p>
      How far a search looks, what counts as alike, where reviewers ask, what is believed where no sale tells:
      <RouterLink class="link" :to="{ name: 'rules' }">the table of house rules</RouterLink>.
    </p>
    <LocalForm />
    <Accounts v-if="isManager" />
    <MapSources v-if="isManager" />
    <MailSetUp />
    <DueWork />
    <Acts v-if="isManager" />
  </div>
</template>
