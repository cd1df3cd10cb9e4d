<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import MenuBox from '@/shared/ui/MenuBox.vue'
import PressArea from '@/shared/ui/PressArea.vue'
import { mdiAccountCircleOutline } from '@mdi/js'
import { ref } from 'vue'
import ChangePassword from './ChangePassword.vue'
import { useSession } from './useSession'

/** At the foot of the bar: who is signed in, and out again. Where nobody has to sign in it says so in the demo alone. */
const { session, who, signOut } = useSession()
const changing = ref(false)
const ROLES: Record<string, string> = { agent: 'agent', manager: 'manager of the office' }
</script>

<template>
  <p
    v-if="session.data.value?.by_itself && session.data.value.demo"
    class="demo small quiet"
    title="The demo signs in by itself, on this machine only"
  >
    Demo: signed in by itself
  </p>
  <template v-else-if="who && !session.data.value?.by_itself">
    <MenuBox location="top">
      <template #press="{ props: activator }">
        <PressArea v-bind="activator" class="me" :aria-label="`Signed in as ${who.name}`">
          <v-icon :icon="mdiAccountCircleOutline" size="22" />
          <span>{{ who.name.split(' ')[0] }}</span>
        </PressArea>
      </template>
      <div class="sheet menu">
        <p>
          <b>{{ who.name }}</b>
          <span class="quiet small block">{{ ROLES[who.role] ?? who.role }}</span>
        </p>
        <ActButton plain @click="changing = true">Change the password</ActButton>
        <ActButton plain @click="signOut(false)">Sign out</ActButton>
        <ActButton plain title="On every machine and browser" @click="signOut(true)">
          Sign out everywhere
        </ActButton>
      </div>
    </MenuBox>
    <ChangePassword v-if="changing" @close="changing = false" />
  </template>
</template>

<style scoped>
.demo {
  padding: 0 6px 12px;
  text-align: center;
  line-height: 1.25;
}
.me {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
  padding: 10px 4px;
  width: 100%;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
  overflow: hidden;
  text-overflow: ellipsis;
}
.me:hover {
  color: rgb(var(--v-theme-slate));
  background: rgb(var(--v-theme-mist));
}
.menu {
  display: grid;
  justify-items: start;
  gap: 4px;
  padding: 12px 14px;
}
.block {
  display: block;
}
</style>
