import { chart, table } from 'dapplo'

export interface Pier {
  pier: string
  year: number
  passengers: number
}

export const piers = table<Pier>(
  [
    { pier: 'Harbour Steps', year: 2024, passengers: 404_705 },
    { pier: 'Gannet Slip', year: 2024, passengers: 44_918 },
    { pier: 'Kelp Quay', year: 2024, passengers: 218_340 },
    { pier: 'Old Mole', year: 2024, passengers: 36_207 },
  ],
  { key: 'pier' },
)

export const bars = chart(piers, {
  draw: 'bar',
  y: 'pier',
  x: 'passengers',
  order: 'ranked',
  label: true,
  select: 'click',
  title: 'Passengers by pier',
})

/** The same as a chart file, for the element. */
export const file = {
  tables: { piers: { rows: piers.rows(), key: 'pier' } },
  ...(bars.toJSON() as object),
}
