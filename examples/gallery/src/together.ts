import { chart, type Live, mount } from 'dapplo'
import { sailings } from './tables.ts'
import { panel, theme } from './theme.ts'

const daily = {
  draw: 'line',
  x: 'day of departed',
  where: { departed: { from: '2024-03-01', until: '2024-10-01' } },
  scales: { x: 'days' },
  zoom: 'x',
} as const

const charts: Live[] = []
for (const [y, title] of [
  ['sum of passengers', 'Passengers'],
  ['sum of vehicles', 'Vehicles'],
  ['mean of delay_minutes', 'Delay'],
  ['max of wind_knots', 'Strongest wind'],
] as const)
  charts.push(mount(chart(sailings, { ...daily, y, title }), panel('small'), { theme }))

// For a look from the console.
Object.assign(window, { charts })
