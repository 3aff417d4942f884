import DefaultTheme from 'vitepress/theme'
import { onMounted } from 'vue'
import ChartTrial from './ChartTrial.vue'
import './style.css'

/** Charts on the site are the element, in the light or dark of the page. */
function followTheme(): void {
  const root = document.documentElement
  const set = () => {
    const theme = root.classList.contains('dark') ? 'night' : 'day'
    for (const chart of document.querySelectorAll('dapplo-chart'))
      if (chart.getAttribute('theme') !== theme) chart.setAttribute('theme', theme)
  }
  new MutationObserver(set).observe(root, { attributes: true, attributeFilter: ['class'] })
  new MutationObserver(set).observe(document.body, { childList: true, subtree: true })
  set()
}

export default {
  extends: DefaultTheme,
  enhanceApp({ app }) {
    app.component('ChartTrial', ChartTrial)
  },
  setup() {
    onMounted(() => {
      followTheme()
      // After the page has come alive, so that charts are no concern of its framework.
      const script = document.createElement('script')
      script.src = '/dapplo.element.js'
      document.head.append(script)
    })
  },
}
