import { chart } from 'dapplo'
import { in2024, sailings } from '../tables.ts'

const week = {
  draw: 'heatmap',
  x: 'hour of day of departed',
  y: 'weekday of departed',
  color: 'mean of delay_minutes',
} as const

export const heatmap = [
  chart(sailings, { ...week, title: 'When delays happen' }),
  chart(sailings, { ...week, title: 'In neat steps', scales: { color: { kind: 'stepped' } } }),
  chart(sailings, {
    draw: 'heatmap',
    title: 'Routes by month, with their values',
    x: 'month of departed',
    y: 'route',
    color: 'sum of passengers',
    label: true,
    where: in2024,
  }),
  chart(sailings, {
    ...week,
    title: 'Around no delay at all',
    x: 'month of departed',
    y: 'route',
    color: 'median of delay_minutes',
    scales: { color: { kind: 'diverging' } },
  }),
]
