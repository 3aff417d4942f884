import { chart, on } from 'dapplo'
import { in2024, sailings, targets } from '../tables.ts'

const monthly = { draw: 'line', x: 'month of departed', y: 'sum of passengers', where: in2024 } as const

export const line = [
  chart(sailings, { ...monthly, title: 'One line' }),
  chart(sailings, { ...monthly, title: 'A line for each route', color: 'route' }),
  chart(sailings, {
    ...monthly,
    title: 'Dashes as well as colours',
    color: 'route',
    dash: 'route',
    between: 'smooth',
  }),
  chart(sailings, { ...monthly, title: 'Points, and their values', points: true, label: true }),
  chart(sailings, {
    ...monthly,
    title: 'Held from month to month',
    between: 'hold',
    y: 'mean of delay_minutes',
  }),
  chart(sailings, {
    title: 'Beside its target',
    where: in2024,
    draw: [
      { as: 'line', x: 'month of departed', y: 'sum of passengers', name: 'Carried' },
      on(targets, {
        as: 'line',
        x: 'month of month',
        y: 'sum of passengers',
        name: 'Target',
        where: { month: { from: '2024-01-01', until: '2025-01-01' } },
        style: { dash: [6, 4] },
      }),
    ],
  }),
  chart(sailings, {
    ...monthly,
    title: 'Delay on a scale of its own',
    draw: [
      { as: 'line', y: 'sum of passengers' },
      { as: 'line', y: 'mean of delay_minutes', against: 'right' },
    ],
  }),
  chart(sailings, { ...monthly, title: 'A day at a time', x: 'day of departed', style: { width: 1.5 } }),
]
