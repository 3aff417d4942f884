import { chart } from 'dapplo'
import { in2024, sailings } from '../tables.ts'

const monthly = { draw: 'area', x: 'month of departed', y: 'sum of passengers', color: 'route' } as const

export const area = [
  chart(sailings, { ...monthly, title: 'On top of each other', between: 'smooth' }),
  chart(sailings, { ...monthly, title: 'Shares of the whole', arrange: 'share', legend: 'right' }),
  chart(sailings, { ...monthly, title: 'Over each other', arrange: 'overlap', where: in2024, top: 3 }),
  chart(sailings, { ...monthly, title: 'One alone', color: null, where: in2024 }),
  chart(sailings, {
    ...monthly,
    title: 'From calm to gale',
    color: null,
    y: { from: 'min of wind_knots', to: 'max of wind_knots' },
  }),
  chart(sailings, {
    ...monthly,
    title: 'Mean wind in its range',
    color: null,
    draw: [
      { as: 'area', y: { from: 'min of wind_knots', to: 'max of wind_knots' } },
      { as: 'line', y: 'mean of wind_knots' },
    ],
    legend: false,
  }),
]
