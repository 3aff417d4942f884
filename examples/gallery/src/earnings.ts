import { chart, type Live, mount, selectedRows } from 'dapplo'
import { sailings } from './tables.ts'
import { panel, theme } from './theme.ts'

const shared = { respond: 'narrow', motion: { duration: 200 } } as const

const charts: Live[] = [
  mount(
    chart(sailings, {
      ...shared,
      title: 'What a crossing burns and earns',
      draw: 'scatter',
      x: 'fuel_litres',
      y: 'revenue',
      select: 'box',
      tooltip: ['vessel', 'route'],
    }),
    panel('wide'),
    { theme, menu: true },
  ),
  mount(
    chart(sailings, {
      ...shared,
      title: 'Who sails where',
      draw: 'heatmap',
      x: 'vessel',
      y: 'route',
      color: 'sum of revenue',
      select: ['click', 'box'],
    }),
    panel('wide'),
    { theme },
  ),
  mount(
    chart(sailings, {
      ...shared,
      title: 'Fuel by route',
      draw: 'bar',
      y: 'route',
      x: 'sum of fuel_litres',
      color: 'route',
      label: true,
      select: 'click',
    }),
    panel('wide'),
    { theme },
  ),
  mount(
    chart(sailings, {
      ...shared,
      title: 'Revenue by quarter',
      stamp: { words: '{count}', note: 'crossings' },
      draw: 'bar',
      x: 'quarter of departed',
      y: 'sum of revenue',
      select: ['click', 'box'],
    }),
    panel('wide'),
    { theme },
  ),
]

// One sentence about all that is chosen together, and one button that lets everything go.
const foot = panel('rows')
const all = document.createElement('button')
all.type = 'button'
all.id = 'all'
all.textContent = 'Back to all crossings'
all.addEventListener('click', () => {
  for (const live of charts) live.state = {}
})
const chosen = document.createElement('p')
chosen.id = 'chosen'
foot.append(all, chosen)

const money = new Intl.NumberFormat('en', { style: 'currency', currency: 'EUR', maximumFractionDigits: 0 })

async function tell(): Promise<void> {
  const rows = await selectedRows(sailings)
  const earned = rows.reduce((sum: number, row: { revenue: number | null }) => sum + (row.revenue ?? 0), 0)
  all.disabled = rows.length === 0
  chosen.textContent =
    rows.length === 0
      ? 'Choose a box, a cell, a bar or a name.'
      : `What is chosen earned ${money.format(earned)}.`
}
for (const live of charts) live.watch(() => void tell())
void tell()
// For a look from the console.
Object.assign(window, { charts, chosen: () => selectedRows(sailings) })
