<script setup lang="ts">
import type { Happening } from 'dapplo'
import { ref } from 'vue'
import { file, type Pier } from './piers.ts'

const night = ref(false)
const clicked = ref('Click a bar.')
const json = JSON.stringify(file)
async function onClicked(event: CustomEvent<Happening<Pier>>) {
  const [row] = await event.detail.rows()
  clicked.value = row ? `Clicked: ${row.pier}` : 'Click a bar.'
}
</script>

<template>
  <p><button type="button" @click="night = !night">{{ night ? 'By day' : 'By night' }}</button></p>
  <dapplo-chart
    :theme="night ? 'night' : 'day'"
    style="height: 320px"
    @clicked="onClicked"
    ><component :is="'script'" type="application/json">{{ json }}</component></dapplo-chart
  >
  <p id="clicked">{{ clicked }}</p>
</template>
