import { chart } from 'dapplo'
import { in2024, inJune, sailings } from '../tables.ts'

const monthly = { x: 'month of departed', y: 'sum of passengers', where: in2024 } as const

export const reference = [
  chart(sailings, {
    ...monthly,
    title: 'A goal',
    draw: ['line', { as: 'reference', y: { value: 60000 }, name: 'Goal' }],
  }),
  chart(sailings, {
    ...monthly,
    title: 'The mean of the bars',
    draw: ['bar', { as: 'reference', level: 'mean' }],
  }),
  chart(sailings, {
    ...monthly,
    title: 'The storm season',
    draw: [
      {
        as: 'reference',
        x: { from: { value: '2024-10-01' }, to: { value: '2024-12-31' } },
        name: 'Storm season',
      },
      { as: 'line', y: 'mean of delay_minutes' },
    ],
  }),
  chart(sailings, {
    title: 'Least, mean and greatest delay',
    where: inJune,
    draw: [
      { as: 'bar', x: 'route', y: 'mean of delay_minutes' },
      { as: 'reference', x: 'route', y: { from: 'min of delay_minutes', to: 'max of delay_minutes' } },
    ],
  }),
  chart(sailings, {
    title: 'Where it matters',
    where: inJune,
    draw: [
      'scatter',
      {
        as: 'reference',
        x: { from: { value: 20 }, to: { value: 32 } },
        y: { from: { value: 5 }, to: { value: 18 } },
        name: 'Rough and late',
      },
      { as: 'reference', x: { value: 16 }, name: 'Small craft stay in' },
    ],
    x: 'wind_knots',
    y: 'delay_minutes',
  }),
  chart(sailings, {
    y: 'route',
    x: 'sum of revenue',
    order: 'ranked',
    where: in2024,
    title: 'Across lying bars',
    draw: ['bar', { as: 'reference', level: 'median' }],
  }),
]
