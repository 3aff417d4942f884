import { chart } from 'dapplo'
import { in2024, sailings, tickets } from '../tables.ts'

const routes = { draw: 'pie', x: 'route', y: 'sum of passengers', where: in2024 } as const

export const pie = [
  chart(sailings, { ...routes, title: 'Shares of passengers' }),
  chart(sailings, { ...routes, title: 'A ring around the whole', hollow: 0.62 }),
  chart(sailings, {
    ...routes,
    title: 'Values instead of shares',
    y: 'sum of revenue',
    label: 'sum of revenue',
    hollow: 0.62,
  }),
  chart(tickets, { draw: 'pie', title: 'Tickets by kind', color: 'kind', y: 'sum of sold', legend: 'right' }),
  chart(sailings, { ...routes, title: 'The two largest, and the rest', top: 2, rest: 'Other routes' }),
  chart(sailings, {
    draw: 'pie',
    title: 'In the order of the week',
    x: 'weekday of departed',
    y: 'count',
    hollow: 0.4,
  }),
]
