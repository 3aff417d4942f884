import { fileURLToPath } from 'node:url'
import { svelte } from '@sveltejs/vite-plugin-svelte'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

const at = name => fileURLToPath(new URL(name, import.meta.url))

/** One chart in React, Vue and Svelte: `npx vite examples/frameworks` serves the three pages. */
export default defineConfig({
  root: at('.'),
  base: './',
  plugins: [
    // What begins so is an element of the page, and none of Vue's components.
    vue({ template: { compilerOptions: { isCustomElement: tag => tag.startsWith('dapplo-') } } }),
    svelte({ configFile: false }),
  ],
  build: {
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 2000,
    rolldownOptions: { input: ['react', 'vue', 'svelte'].map(name => at(`${name}.html`)) },
  },
})
