import { chart, table } from 'dapplo'
import { in2024, inJune, sailings, vessels } from '../tables.ts'

/** A hundred thousand positions of a buoy on its chain, drawn without chance so that the picture stays the same. */
const COUNT = 100_000
const drift = table(
  {
    east: Float64Array.from(
      { length: COUNT },
      (_, i) => Math.sin(i * 1.7) * (3 + ((i * 7919) % 997) / 300) + Math.sin(i / 9000),
    ),
    north: Float64Array.from(
      { length: COUNT },
      (_, i) => Math.cos(i * 1.7) * (3 + ((i * 104_729) % 991) / 300) + Math.cos(i / 7000),
    ),
    tide: Array.from({ length: COUNT }, (_, i) => (Math.sin(i / 9000) > 0 ? 'Flood' : 'Ebb')),
  },
  { name: 'drift', columns: { east: { unit: 'm' }, north: { unit: 'm' } } },
)
const delays = { draw: 'scatter', x: 'wind_knots', y: 'delay_minutes', where: inJune } as const
const day = { departed: { from: '2024-06-01', until: '2024-06-04' } }

export const scatter = [
  chart(sailings, { ...delays, title: 'Delay against wind' }),
  chart(sailings, {
    ...delays,
    title: 'Routes apart by colour and form',
    color: 'route',
    shape: 'route',
    where: day,
  }),
  chart(sailings, {
    ...delays,
    title: 'Passengers as areas',
    size: 'passengers',
    color: 'route',
    where: day,
  }),
  chart(sailings, { ...delays, title: 'Coloured by litres of fuel', color: 'fuel_litres' }),
  chart(vessels, {
    draw: 'scatter',
    title: 'Every vessel by its name',
    x: 'built',
    y: 'capacity',
    label: 'vessel',
  }),
  chart(drift, { draw: 'scatter', title: 'A hundred thousand places of a buoy', x: 'east', y: 'north' }),
  chart(drift, { draw: 'scatter', title: 'At flood and at ebb', x: 'east', y: 'north', color: 'tide' }),
  chart(sailings, { ...delays, title: 'A whole year', where: in2024 }),
]
