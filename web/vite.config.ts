import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'
import vuetify from 'vite-plugin-vuetify'
import { guidePages } from './guidePages.ts'

// where the service lies is told by the service: what the page loads is named from the page itself
export default defineConfig({
  base: './',
  plugins: [guidePages(), vue(), vuetify({ autoImport: true })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  html: { cspNonce: '{nonce}' },
  build: { outDir: '../src/rain_porch/web', emptyOutDir: true, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8040' } },
})
