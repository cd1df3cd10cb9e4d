import { computed, ref, watchEffect } from 'vue'
import { useTheme as useVuetifyTheme } from 'vuetify'
import { DAY, NIGHT } from './tokens'

export type Light = 'system' | 'day' | 'night'

const choice = ref<Light>((localStorage.getItem('light') as Light) || 'system')
const dusk = window.matchMedia('(prefers-color-scheme: dark)')
const systemDark = ref(dusk.matches)
dusk.addEventListener('change', (event) => (systemDark.value = event.matches))

/** The chosen light and its tokens. Call `follow` once, in the frame, to keep the theme in step. */
export function useLight() {
  const dark = computed(() => choice.value === 'night' || (choice.value === 'system' && systemDark.value))
  const tokens = computed(() => (dark.value ? NIGHT : DAY))
  function follow() {
    const theme = useVuetifyTheme()
    watchEffect(() => {
      theme.change(dark.value ? 'night' : 'day')
      localStorage.setItem('light', choice.value)
    })
  }
  return { choice, dark, tokens, follow }
}
