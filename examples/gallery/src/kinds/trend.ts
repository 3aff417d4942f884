import { chart } from 'dapplo'
import { inJune, piers, sailings } from '../tables.ts'

const delays = { x: 'wind_knots', y: 'delay_minutes', where: inJune } as const
const harbour = { x: 'year', y: 'passengers', where: { pier: 'Harbour Steps' } } as const

export const trend = [
  chart(sailings, {
    ...delays,
    title: 'A straight line, and its band',
    draw: ['scatter', { as: 'trend', band: true }],
  }),
  chart(sailings, { ...delays, title: 'A parabola', draw: ['scatter', { as: 'trend', fit: { degree: 2 } }] }),
  chart(sailings, {
    ...delays,
    title: 'A curve that follows the points',
    draw: ['scatter', { as: 'trend', fit: 'local' }],
  }),
  chart(piers, {
    ...harbour,
    title: 'Growth',
    draw: ['scatter', { as: 'trend', fit: 'exponential', band: true }],
  }),
  chart(sailings, {
    title: 'Month by month',
    x: 'month of departed',
    y: 'sum of revenue',
    draw: ['line', { as: 'trend', style: { dash: [6, 4] } }],
  }),
  chart(piers, {
    title: 'One for each pier',
    x: 'year',
    y: 'passengers',
    color: 'pier',
    where: { pier: ['Harbour Steps', 'Gannet Slip'] },
    draw: ['scatter', { as: 'trend', label: true }],
  }),
]
