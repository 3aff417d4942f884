import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vite'

/** Four charts over twenty million rows: `npm start` in this folder makes the rows, and serves the page with its endpoint. */
export default defineConfig({ root: fileURLToPath(new URL('.', import.meta.url)), base: './' })
