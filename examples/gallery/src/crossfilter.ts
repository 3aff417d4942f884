import { chart, type Live, mount } from 'dapplo'
import { sailings } from './tables.ts'
import { panel, theme } from './theme.ts'

const shared = { respond: 'narrow', motion: { duration: 200 } } as const

const charts: Live[] = [
  mount(
    chart(sailings, {
      ...shared,
      title: 'Wind against delay',
      draw: 'scatter',
      x: 'wind_knots',
      y: 'delay_minutes',
      select: 'box',
      tooltip: ['vessel', 'departed'],
    }),
    panel('wide'),
    { theme, menu: true },
  ),
  mount(
    chart(sailings, {
      ...shared,
      title: 'When they sail',
      draw: 'heatmap',
      x: 'hour of day of departed',
      y: 'weekday of departed',
      color: 'count',
      select: ['click', 'box'],
    }),
    panel('wide'),
    { theme },
  ),
  mount(
    chart(sailings, {
      ...shared,
      title: 'Passengers by route',
      draw: 'bar',
      y: 'route',
      x: 'sum of passengers',
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
      title: '{count} sailings, month by month',
      draw: 'bar',
      x: 'month of departed',
      y: 'count',
      select: ['click', 'box'],
    }),
    panel('wide'),
    { theme },
  ),
]

// The rows behind the selection, and one button that clears everything.
const list = panel('rows')
const clear = document.createElement('button')
clear.type = 'button'
clear.id = 'clear'
clear.textContent = 'Clear everything'
clear.addEventListener('click', () => {
  for (const live of charts) live.state = {}
})
const heading = document.createElement('p')
heading.id = 'count'
const table = document.createElement('table')
table.tabIndex = 0
table.setAttribute('aria-label', 'The first rows of the selection')
list.append(clear, heading, table)

const COLUMNS = ['departed', 'route', 'vessel', 'passengers', 'delay_minutes', 'wind_knots'] as const
const LISTED = 12

function showRows(): void {
  const chosen = charts
    .filter(live => live.state.selected?.length)
    .map(live => new Set(live.selectedRows().map(row => (row as { id: number }).id)))
  const rows = chosen.length === 0 ? [] : charts.find(live => live.state.selected?.length)!.selectedRows()
  const both = (rows as Record<string, unknown>[]).filter(row =>
    chosen.every(ids => ids.has(row.id as number)),
  )
  heading.textContent =
    chosen.length === 0
      ? 'Nothing is selected: all sailings are shown.'
      : `${both.length.toLocaleString('en')} sailings are selected.`
  clear.disabled = chosen.length === 0
  const line = (cells: readonly string[], name: 'td' | 'th') => {
    const row = document.createElement('tr')
    for (const text of cells) {
      const cell = document.createElement(name)
      cell.textContent = text
      row.append(cell)
    }
    return row
  }
  const text = (value: unknown) =>
    value instanceof Date ? value.toISOString().slice(0, 16).replace('T', ' ') : String(value ?? '')
  table.replaceChildren(
    ...(both.length > 0
      ? [
          line(
            COLUMNS.map(name => name.replace('_', ' ')),
            'th',
          ),
        ]
      : []),
    ...both.slice(0, LISTED).map(row =>
      line(
        COLUMNS.map(name => text(row[name])),
        'td',
      ),
    ),
  )
}
for (const live of charts) live.watch(showRows)
showRows()
// For a look from the console.
Object.assign(window, { charts })
