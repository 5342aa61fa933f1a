import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)), '~': fileURLToPath(new URL('..', import.meta.url)) } },
  build: { outDir: '../src/tabrel/static', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8710' }, fs: { allow: ['..'] } },
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'], setupFiles: ['src/testing.ts'], isolate: false },
})
