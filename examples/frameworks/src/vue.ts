import { defineElement } from 'dapplo'
import { createApp } from 'vue'
import PierChart from './PierChart.vue'

defineElement()
createApp(PierChart).mount('#root')
