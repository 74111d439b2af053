import vue from '@vitejs/plugin-vue'
import { fileURLToPath, URL } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  test: { setupFiles: ['src/testing/place.ts'] },
  server: { proxy: { '/api': 'http://127.0.0.1:8747' } },
})
