import { chart } from 'dapplo'
import { in2024, inJune, sailings, tickets, vessels } from '../tables.ts'

const quarterly = {
  draw: 'bar',
  x: 'quarter of departed',
  y: 'sum of passengers',
  color: 'route',
  where: in2024,
} as const

export const bar = [
  chart(sailings, { ...quarterly, title: 'Side by side' }),
  chart(sailings, { ...quarterly, title: 'On top of each other', arrange: 'stack', label: true }),
  chart(sailings, { ...quarterly, title: 'To the whole', arrange: 'share', legend: 'right' }),
  chart(sailings, {
    draw: 'bar',
    title: 'Ranked, with their values',
    y: 'route',
    x: 'sum of revenue',
    order: 'ranked',
    label: true,
    where: in2024,
  }),
  chart(sailings, {
    draw: 'bar',
    title: 'The top three, and the rest',
    x: 'route',
    y: 'sum of passengers',
    top: 3,
    rest: true,
    order: 'ranked',
    label: true,
  }),
  chart(sailings, {
    draw: 'bar',
    title: 'Early and late',
    x: 'day of departed',
    y: 'min of delay_minutes',
    where: inJune,
  }),
  chart(sailings, {
    draw: 'bar',
    title: 'Coloured by what they show',
    x: 'weekday of departed',
    y: 'mean of delay_minutes',
    color: 'mean of wind_knots',
  }),
  chart(sailings, {
    draw: 'bar',
    title: 'From least to most wind',
    y: 'route',
    x: { from: 'min of wind_knots', to: 'max of wind_knots' },
    where: inJune,
  }),
  chart(vessels, {
    title: 'Cars in proportion to people',
    x: 'vessel',
    draw: [
      { as: 'bar', y: 'capacity' },
      {
        as: 'reference',
        x: 'vessel',
        y: 'cars',
        label: { words: '{cars} cars' },
        style: { color: '#ab4707' },
      },
    ],
  }),
  chart(tickets, {
    draw: 'bar',
    title: 'Over each other',
    arrange: 'overlap',
    x: 'quarter of month',
    y: 'sum of sold',
    color: 'kind',
    style: { gap: 0.1 },
  }),
  chart(sailings, { draw: 'bar', title: 'How delays are spread', x: 'bins of delay_minutes', y: 'count' }),
]
