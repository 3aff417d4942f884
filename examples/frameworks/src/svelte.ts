import { defineElement } from 'dapplo'
import { mount } from 'svelte'
import PierChart from './PierChart.svelte'

defineElement()
mount(PierChart, { target: document.getElementById('root')! })
