import { chart, mount } from 'dapplo'
import { in2024, sailings } from './tables.ts'
import { panel, theme } from './theme.ts'

const bars = mount(
  chart(sailings, {
    id: 'routes',
    title: 'Revenue by route',
    subtitle: 'Click a bar, or its name',
    draw: 'bar',
    y: 'route',
    x: 'sum of revenue',
    color: 'route',
    order: 'ranked',
    label: true,
    select: 'click',
    respond: 'ignore',
    where: in2024,
  }),
  panel('small'),
  { theme },
)
const ring = mount(
  chart(sailings, {
    detailOf: 'routes',
    title: '{route}, by vessel',
    draw: 'pie',
    hollow: 0.6,
    x: 'vessel',
    y: 'sum of revenue',
    respond: 'ignore',
    where: in2024,
  }),
  panel('small'),
  { theme },
)

// For a look from the console.
Object.assign(window, { charts: [bars, ring] })
