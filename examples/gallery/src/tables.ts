import { readCsv, reshape } from 'dapplo'
import piersText from '../../../demo-data/piers.csv?raw'
import sailingsText from '../../../demo-data/sailings.csv?raw'
import targetsText from '../../../demo-data/targets.csv?raw'
import ticketsText from '../../../demo-data/tickets.csv?raw'
import vesselsText from '../../../demo-data/vessels.csv?raw'

/** The tables of the Skerry Line. */
export const sailings = readCsv(sailingsText, {
  name: 'sailings',
  rowsAre: 'Sailings',
  key: 'id',
  columns: {
    revenue: { format: { style: 'currency', currency: 'EUR' } },
    delay_minutes: { label: 'Delay', unit: 'minutes' },
    wind_knots: { label: 'Wind', unit: 'knots' },
  },
})
export const targets = readCsv(targetsText, { name: 'targets' })
export const tickets = readCsv(ticketsText, { name: 'tickets' })
export const vessels = readCsv(vesselsText, { name: 'vessels' })
/** A row for each pier and year. */
export const piers = reshape(readCsv(piersText, { name: 'piers' }), [
  { long: { keep: ['pier'], name: 'year', value: 'passengers' } },
])

export const in2024 = { departed: { from: '2024-01-01', until: '2025-01-01' } } as const
export const inJune = { departed: { from: '2024-06-01', until: '2024-07-01' } } as const
