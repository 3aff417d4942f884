import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const PAGES = [
  'index',
  'kinds',
  'axes',
  'together',
  'earnings',
  'detail',
  'period',
  'race',
  'board',
  'compose',
  'stress',
  'large',
]
const page = name => fileURLToPath(new URL(name, import.meta.url))

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  base: './',
  worker: { format: 'es' },
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: { input: Object.fromEntries(PAGES.map(name => [name, page(`${name}.html`)])) },
  },
})
