<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'

const root = ref<HTMLElement>()
let stop = () => {}
onMounted(async () => {
  const { startTrial } = await import('./trial.ts')
  if (root.value) stop = await startTrial(root.value)
})
onBeforeUnmount(() => stop())
</script>

<template>
  <div ref="root" class="trial">
    <div>
      <label>Data (CSV, or drop a file here) <input class="file" type="file" accept=".csv,.json,.txt" /></label>
      <div class="editor" aria-label="The description, as JSON"></div>
    </div>
    <div>
      <div class="place"></div>
      <div class="said" role="status"></div>
    </div>
  </div>
</template>
