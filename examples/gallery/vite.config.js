import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const page = name => fileURLToPath(new URL(name, import.meta.url))

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  base: './',
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: {
      input: { index: page('index.html'), axes: page('axes.html'), kinds: page('kinds.html') },
    },
  },
})
