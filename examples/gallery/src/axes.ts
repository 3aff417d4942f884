import { mount } from 'dapplo'
import piersText from '../../../demo-data/piers.csv?raw'
import sailingsText from '../../../demo-data/sailings.csv?raw'
import vesselsText from '../../../demo-data/vessels.csv?raw'
import { axisExamples } from './axes-charts.ts'

const theme = new URLSearchParams(location.search).get('theme') === 'night' ? 'night' : 'day'
document.documentElement.dataset.theme = theme
const page = document.getElementById('axes')!
for (const example of axisExamples(sailingsText, piersText, vesselsText)) {
  const panel = document.createElement('div')
  panel.style.width = `${example.width ?? 380}px`
  panel.style.height = `${example.height ?? 240}px`
  if (example.rightToLeft) panel.dir = 'rtl'
  page.append(panel)
  mount(example.chart, panel, { locale: example.locale, theme })
}
