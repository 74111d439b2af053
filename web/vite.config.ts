import vue from '@vitejs/plugin-vue'
import { createHash } from 'node:crypto'
import { fileURLToPath, URL } from 'node:url'
import { defineConfig, type Plugin } from 'vite'

const file = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const BUILT_FILES = 'self.BUILT_FILES'

/** Tells the service worker which files were built: those with a hash in their names never change, the page by its content. */
const builtFiles: Plugin = {
  name: 'built-files',
  enforce: 'post',
  apply: 'build',
  generateBundle(_, bundle) {
    const worker = bundle['sw.js']
    if (worker?.type !== 'chunk' || !worker.code.includes(BUILT_FILES))
      throw new Error('the service worker does not ask which files were built')
    const told = Object.values(bundle)
      .filter((item) => item !== worker)
      .map((item) => {
        if (item.fileName.startsWith('assets/')) return { url: `/${item.fileName}`, revision: null }
        const content = item.type === 'chunk' ? item.code : item.source
        const revision = createHash('sha256').update(content).digest('hex').slice(0, 16)
        return { url: item.fileName === 'index.html' ? '/' : `/${item.fileName}`, revision }
      })
    worker.code = worker.code.replace(BUILT_FILES, JSON.stringify(told))
  },
}

export default defineConfig({
  plugins: [vue(), builtFiles],
  // Stands in an answer that a telephone kept. The service worker is one file that imports nothing.
  define: { __KEPT_HEADER__: JSON.stringify('x-tidy-kept') },
  resolve: { alias: { '@': file('./src') } },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      input: { index: file('./index.html'), sw: file('./src/offline/sw.ts') },
      output: {
        // The service worker stands at the root, under a name that never changes: it may speak for what lies below it.
        entryFileNames: ({ name }) => (name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8747' } },
})
