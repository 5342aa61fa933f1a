import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** Name the packages whose code is in what was built, by their place in the lock file: docs/make_notices.py adds their licences. */
const shippedPackages: Plugin = {
  name: 'shipped-packages',
  generateBundle(_, bundle) {
    const modules = Object.values(bundle).flatMap((file) => (file.type === 'chunk' ? file.moduleIds : []))
    const places = modules.flatMap((id) => /(node_modules\/.*node_modules\/|node_modules\/)(@[^/]+\/)?[^/?]+/.exec(id)?.[0] ?? [])
    this.emitFile({ type: 'asset', fileName: 'shipped.json', source: JSON.stringify([...new Set(places)].sort()) })
  },
}

export default defineConfig({
  plugins: [vue(), shippedPackages],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)), '~': fileURLToPath(new URL('..', import.meta.url)) } },
  build: { outDir: '../src/tabrel/static', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:8710' }, fs: { allow: ['..'] } },
  test: { environment: 'happy-dom', include: ['src/**/*.test.ts'], setupFiles: ['src/testing.ts'], isolate: false },
})
