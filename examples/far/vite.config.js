import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

const at = path => fileURLToPath(new URL(path, import.meta.url))

/** Four charts over twenty million rows, and a composer over them: `npm start` in this folder makes the rows, and serves the pages with their endpoint. */
export default defineConfig({
  root: at('.'),
  base: './',
  build: {
    chunkSizeWarningLimit: 2000,
    // The pages wait for their rows before they show something.
    target: 'es2022',
    rolldownOptions: { input: { index: at('index.html'), compose: at('compose.html') } },
  },
})
