import { chart } from 'dapplo'
import { in2024, sailings, vessels } from '../tables.ts'

export const text = [
  chart(vessels, {
    draw: { as: 'text', label: 'vessel' },
    title: 'Names where they belong',
    x: 'built',
    y: 'capacity',
  }),
  chart(vessels, {
    draw: 'scatter',
    title: 'Words with holes',
    x: 'built',
    y: 'capacity',
    label: { words: '{vessel}, {cars} cars' },
  }),
  chart(sailings, {
    title: '{sum of passengers} people in {count} sailings',
    subtitle: 'Words of a title are filled in too',
    draw: 'bar',
    x: 'month of departed',
    y: 'sum of passengers',
    label: true,
    where: in2024,
  }),
]
