import { expect, test } from 'vitest'
import { reshape, type Step, table } from '../index.ts'

const piers = table([
  { pier: 'Old Mole', year: '2024', boats: 3 },
  { pier: 'Old Mole', year: '2025', boats: 5 },
])

test.each<[unknown, string, string]>([
  [{ wide: { names: 'year', value: 'boats' } }, 'shape[0].wide.names', 'Did you mean "name"?'],
  [{ wide: { name: 'yaer', value: 'boats' } }, 'shape[0].wide.name', 'Did you mean "year"?'],
  [{ wide: { name: 'year' } }, 'shape[0].wide.value', 'Add it.'],
  [{ sort: 'boats', order: 'descending' }, 'shape[0].order', 'Write "up" or "down".'],
  [{ filter: { pier: 'Old Mole' } }, 'shape[0].filter', 'Write where.'],
])('a step that is amiss is answered: %j', (step, path, hint) => {
  expect(() => reshape(piers, [step as Step])).toThrow(expect.objectContaining({ path, hint }))
})
