import { chart, mount } from 'dapplo'
import { sailings } from './tables.ts'
import { panel, theme } from './theme.ts'

const live = mount(
  chart(sailings, {
    title: 'Passengers of the Skerry Line',
    draw: 'bar',
    x: 'quarter of departed',
    y: 'sum of passengers',
    color: 'route',
    arrange: 'stack',
    controls: [
      {
        set: 'x',
        to: ['month of departed', 'quarter of departed', 'year of departed'],
        names: ['Months', 'Quarters', 'Years'],
        label: 'Period',
      },
      { set: 'draw', to: ['bar', 'line', 'area'], names: ['Bars', 'Lines', 'Areas'], label: 'Drawn as' },
      {
        set: 'y',
        to: ['sum of passengers', 'sum of revenue', 'mean of delay_minutes'],
        names: ['Passengers', 'Revenue', 'Delay'],
        as: 'menu',
        label: 'Shows',
      },
      { set: 'top', to: [1, 2, 3, 4, 5], as: 'slider', label: 'Largest routes' },
      {
        set: 'where.route',
        to: ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows'],
        as: 'checks',
        label: 'Routes',
      },
    ],
    top: 5,
  }),
  panel('large'),
  { theme, menu: true },
)

// For a look from the console.
Object.assign(window, { charts: [live] })
