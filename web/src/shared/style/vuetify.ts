import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { DAY, NIGHT, type Tokens } from './tokens'

function theme(tokens: Tokens, dark: boolean) {
  return {
    dark,
    colors: {
      ...tokens,
      background: tokens.mist,
      surface: tokens.paper,
      primary: tokens.slate,
      secondary: tokens.rain,
      error: tokens.clay,
      warning: tokens.lamp,
      success: tokens.moss,
      'on-background': tokens.slate,
      'on-surface': tokens.slate,
      'on-primary': tokens.paper,
    },
  }
}

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  // its styles are written by script: they carry the page’s own nonce
  theme: {
    cspNonce: document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce,
    defaultTheme: 'day',
    themes: { day: theme(DAY, false), night: theme(NIGHT, true) },
  },
  defaults: {
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VBtn: { variant: 'text', rounded: 'sm' },
    VCard: { flat: true },
  },
})
