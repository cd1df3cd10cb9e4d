import './shared/style/reset.css'
import '@fontsource/figtree/latin-400.css'
import '@fontsource/figtree/latin-500.css'
import '@fontsource/figtree/latin-600.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { holdPresses } from './shared/heldPress'
import { reaching } from './shared/useReaching'
import './shared/style/base.css'
import { vuetify } from './shared/style/vuetify'

reaching(router)
holdPresses()
createApp(App)
  .use(router)
  .use(vuetify)
  .use(VueQueryPlugin, {
    queryClientConfig: { defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } },
  })
  .mount('#app')
