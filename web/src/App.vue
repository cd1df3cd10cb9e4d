<script setup lang="ts">
import { served } from '@/shared/servicePath'
import CommandField from '@/shared/ui/fields/CommandField.vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { onSignedOut } from '@/shared/api/client'
import {
  mdiChartLine,
  mdiClipboardTextOutline,
  mdiCogOutline,
  mdiDatabaseOutline,
  mdiHomeSearchOutline,
} from '@mdi/js'
import Me from './session/Me.vue'
import { useSession } from './session/useSession'
import KeysPage from './shared/keys/KeysPage.vue'
import MeaningShown from './shared/words/MeaningShown.vue'
import Legend from './shared/map/Legend.vue'
import RecordsStanding from './records/RecordsStanding.vue'
import { useWalk } from './walk/useWalk'
import { readIn } from './shared/localForm'
import { later, useReaching } from './shared/useReaching'
import { useLight } from './shared/style/useTheme'

const places = [
  { to: '/', label: 'Desk', icon: mdiHomeSearchOutline },
  { to: '/workups', label: 'Workups', icon: mdiClipboardTextOutline },
  { to: '/market', label: 'Market', icon: mdiChartLine },
  { to: '/records', label: 'Records', icon: mdiDatabaseOutline },
  { to: '/settings', label: 'Settings', icon: mdiCogOutline },
]
useLight().follow()
const asked = useReaching()
const WalkCard = later(() => import('./walk/WalkCard.vue'))
const walk = useWalk()
const SignIn = later(() => import('./session/SignIn.vue'))
const { isOut, session } = useSession()
// another workup, file or page is another room: nothing of the last one stays, no saved word and no revision
const route = useRoute()
const roomOf = computed(() => Object.values(route.params).join('/'))
// a field holds its figure as it was written when it came: where the office reads otherwise, the room is drawn anew
const drawn = ref(0)
watch(session.data, (now) => now && readIn(now.form) && (drawn.value += 1), {
  immediate: true,
  flush: 'sync',
})
const queries = useQueryClient()
onSignedOut(() => void queries.invalidateQueries({ queryKey: ['session'] }))
</script>

<template>
  <v-app>
    <!-- what was begun stays behind the door: who signs in again goes on with it -->
    <SignIn v-if="isOut" />
    <div class="frame" :inert="isOut">
      <nav class="bar" aria-label="Places">
        <router-link to="/" class="sign" aria-label="Rain Porch, to the desk">
          <img :src="served('/icon.svg')" alt="" width="34" height="34" />
        </router-link>
        <router-link v-for="place in places" :key="place.to" :to="place.to" class="place">
          <v-icon :icon="place.icon" size="22" />
          <span>{{ place.label }}</span>
        </router-link>
        <div class="foot"><Me /></div>
      </nav>
      <header class="top">
        <CommandField />
        <p v-if="asked" class="lamp asked" role="alert">
          Rain Porch does not answer. What you asked for opens as soon as it does.
        </p>
        <RecordsStanding v-if="!isOut" />
      </header>
      <main class="room"><router-view :key="`${drawn} ${roomOf}`" /></main>
    </div>
    <Legend />
    <KeysPage />
    <MeaningShown />
    <WalkCard v-if="walk.at.value >= 0 && !isOut" />
  </v-app>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  grid-template-rows: 52px minmax(0, 1fr);
  height: 100vh;
  background: rgb(var(--v-theme-background));
}
.bar {
  grid-row: 1 / 3;
  background: rgb(var(--v-theme-surface));
  border-right: var(--line);
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 2px;
}
.sign {
  height: 52px;
  display: grid;
  place-items: center;
  margin-bottom: 6px;
}
.place {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
  padding: 9px 0;
  font-size: var(--small);
  color: rgb(var(--v-theme-quiet));
  text-decoration: none;
  border-left: 3px solid transparent;
}
.place:hover {
  color: rgb(var(--v-theme-slate));
  background: rgb(var(--v-theme-mist));
}
.place.router-link-exact-active,
.place.router-link-active:not([href='/']) {
  color: rgb(var(--v-theme-slate));
  font-weight: 600;
  border-left-color: rgb(var(--v-theme-slate));
}
.foot {
  margin-top: auto;
}
.top {
  display: flex;
  align-items: center;
  padding: 0 16px;
  border-bottom: var(--line);
  background: rgb(var(--v-theme-surface));
}
.asked {
  margin: 0 16px;
  padding: 4px 10px;
}
.room {
  min-height: 0;
  overflow: auto;
}
@media (max-width: 620px) {
  .frame {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: 48px minmax(0, 1fr) 54px;
  }
  .bar {
    grid-row: 3;
    flex-direction: row;
    justify-content: space-around;
    border-right: none;
    border-top: var(--line);
  }
  .sign,
  .foot {
    display: none;
  }
  .place {
    flex: 1;
    padding: 6px 0;
    border-left: none;
    border-top: 3px solid transparent;
  }
  .top {
    padding: 0 8px;
  }
}
</style>
