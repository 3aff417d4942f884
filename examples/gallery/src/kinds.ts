import { mount } from 'dapplo'
import { area } from './kinds/area.ts'
import { bar } from './kinds/bar.ts'
import { heatmap } from './kinds/heatmap.ts'
import { line } from './kinds/line.ts'
import { looks } from './kinds/looks.ts'
import { pie } from './kinds/pie.ts'
import { reference } from './kinds/reference.ts'
import { scatter } from './kinds/scatter.ts'
import { text } from './kinds/text.ts'
import { trend } from './kinds/trend.ts'

const PAGES = { line, area, bar, scatter, pie, heatmap, reference, trend, text, looks }
const asked = new URLSearchParams(location.search)
const kind = (
  Object.hasOwn(PAGES, asked.get('kind') ?? '') ? asked.get('kind') : 'line'
) as keyof typeof PAGES
const theme = asked.get('theme') === 'night' ? 'night' : 'day'
const narrow = asked.get('width') === 'narrow'

const link = (words: string, changes: Record<string, string>, here: boolean) => {
  const anchor = document.createElement('a')
  anchor.href = `?${new URLSearchParams({ kind, theme, width: narrow ? 'narrow' : 'wide', ...changes })}`
  anchor.textContent = words
  if (here) anchor.setAttribute('aria-current', 'page')
  return anchor
}

document.documentElement.dataset.theme = theme
document.getElementById('name')!.textContent =
  kind === 'looks' ? 'Looks' : `${kind[0].toUpperCase()}${kind.slice(1)}`
document
  .getElementById('kinds')!
  .append(...Object.keys(PAGES).map(name => link(name, { kind: name }, name === kind)))
document
  .getElementById('frame')!
  .append(
    link('day', { theme: 'day' }, theme === 'day'),
    link('night', { theme: 'night' }, theme === 'night'),
    link('wide', { width: 'wide' }, !narrow),
    link('narrow', { width: 'narrow' }, narrow),
  )
const page = document.getElementById('charts')!
for (const chart of PAGES[kind]) {
  const panel = document.createElement('div')
  panel.style.width = narrow ? '340px' : '600px'
  panel.style.height = narrow ? '360px' : '370px'
  page.append(panel)
  mount(chart, panel, { theme })
}
