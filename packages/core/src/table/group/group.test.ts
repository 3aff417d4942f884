import { expect, test } from 'vitest'
import { groupRows } from './group.ts'

test('groups of few rows take the room of these, however many rows the table has', () => {
  const sound = { codes: Int32Array.of(0, 1, 0), size: 2 } as never
  const nowhere = groupRows([], 10_000_000, new Int32Array(0))
  expect([nowhere.count, nowhere.ofRow.byteLength]).toEqual([0, 0])
  const few = groupRows([sound], 10_000_000, Int32Array.of(1, 2, 0))
  expect(few.count).toBe(2)
  expect(few.ofRow.length).toBe(3)
  expect([0, 1].map(group => [...few.rowsOf(group)])).toEqual([[1], [2, 0]])
})
