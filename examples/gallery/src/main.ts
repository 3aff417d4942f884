import { answeredBy, askColumns } from '@dapplo/core/internal'
import { chart, feed, mount, readCsv, spread, table } from 'dapplo'
import sailingsText from '../../../demo-data/sailings.csv?raw'

interface Sailing {
  id: number
  departed: Date
  route: string
  passengers: number
}

const sailings = readCsv<Sailing>(sailingsText, { name: 'sailings', rowsAre: 'Sailings', key: 'id' })
const lines = chart(sailings, {
  title: 'Passengers by route',
  subtitle: 'Daily totals of the Skerry Line',
  source: 'Source: sailings.csv',
  draw: 'line',
  x: 'day of departed',
  y: 'sum of passengers',
  color: 'route',
})
const bars = lines.with({ draw: 'bar', x: 'month of departed', arrange: 'stack' })
const live = mount(lines, '#panel')

const DAY = 86_400_000
const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
let next = 1_000_000
let day = Date.UTC(2026, 0, 1)

on('append', () => {
  const rows: Sailing[] = []
  for (let n = 0; n < 7; n++, day += DAY) {
    routes.forEach((route, r) => {
      rows.push({
        id: next++,
        departed: new Date(day + 9 * 3_600_000),
        route,
        passengers: Math.round(900 / (r + 1.5) + 200 * Math.sin(n * 1.3 + r)),
      })
    })
  }
  sailings.append(rows)
})

let kind = lines
on('kind', button => {
  kind = kind === lines ? bars : lines
  button.textContent = kind === lines ? 'Show months as bars' : 'Show days as lines'
  live.show(kind)
})

on('theme', button => {
  const night = document.documentElement.dataset.theme !== 'night'
  document.documentElement.dataset.theme = night ? 'night' : 'day'
  button.textContent = night ? 'Day' : 'Night'
  live.reframe({ theme: night ? 'night' : 'day' })
})

function on(id: string, act: (button: HTMLButtonElement) => void): void {
  const button = document.getElementById(id) as HTMLButtonElement
  button.addEventListener('click', () => act(button))
}

// For curious people with the console open, and for tests.
Object.assign(window, {
  live,
  sailings,
  charts: [live],
  dapplo: { answeredBy, askColumns, chart, feed, mount, spread, table },
})
