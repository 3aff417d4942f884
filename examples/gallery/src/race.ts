import { chart, mount } from 'dapplo'
import { piers } from './tables.ts'
import { panel, theme } from './theme.ts'

const live = mount(
  chart(piers, {
    title: 'The busiest piers, year by year',
    subtitle: 'Passengers at the piers of the Skerry Line',
    draw: [
      { as: 'bar', label: true },
      { as: 'reference', x: { value: 100_000 }, label: { words: 'A hundred thousand' } },
    ],
    y: 'pier',
    x: 'sum of passengers',
    color: 'pier',
    order: 'ranked',
    top: 10,
    through: 'year',
    stamp: { note: '{sum of passengers} passengers at {count} piers' },
    scales: { through: { each: 900 } },
    legend: false,
  }),
  panel('large'),
  { theme },
)
// For a look from the console.
Object.assign(window, { charts: [live] })
