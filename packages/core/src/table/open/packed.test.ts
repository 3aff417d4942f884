import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Table } from '../live/table.ts'
import { packTable, unpackTable } from './packed.ts'
import { readCsv, table } from './read.ts'

/** A table as another thread gets it. */
function sent(from: Table): Table {
  const { packed, buffers } = packTable(from)
  return unpackTable(structuredClone(packed, { transfer: buffers }))
}
const all = (table: Table) => ({
  name: table.name,
  key: table.key,
  rowsAre: table.rowsAre,
  rows: table.rows(),
  report: table.report,
  units: table.names.map(name => [table.column(name)!.dateUnit, table.column(name)!.zone.name]),
})

const cell = fc.oneof(
  fc.constantFrom('2024-03-01', '2024-03', '3/4/2024', '12:30', 'full', '', 'n/a', '1,234', '1.234,5', '12%'),
  fc.integer().map(String),
  fc.double({ noNaN: true, noDefaultInfinity: true }).map(String),
  fc.string({ maxLength: 6 }),
)
const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`
const csv = (rows: string[][]) =>
  ['id,a,b', ...rows.map((cells, i) => [String(i), ...cells].map(quoted).join(','))].join('\n')

test('a table that was sent is the one that was packed, and reads later rows alike', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 12 }),
      fc.array(fc.record({ a: cell, b: cell }), { maxLength: 4 }),
      fc.constantFrom(undefined, 'Europe/Lisbon'),
      (rows, later, timeZone) => {
        const make = () =>
          readCsv(csv(rows), { name: 'sailings', rowsAre: 'Sailings', key: 'id', timeZone, separator: ',' })
        const [kept, moved] = [make(), sent(make())]
        expect(all(moved)).toEqual(all(kept))
        const records = later.map((record, i) => ({ id: rows.length + i, ...record }))
        if (records.length > 0) for (const table of [kept, moved]) table.append(records)
        expect(all(moved)).toEqual(all(kept))
      },
    ),
  )
})

test('columns are moved, not copied, but what others hold as well is left to them', () => {
  const own = readCsv('n,route\n1,Tern Point\n2,Kelp Narrows\n')
  const { packed, buffers } = packTable(own)
  structuredClone(packed, { transfer: buffers })
  expect(buffers.map(buffer => buffer.byteLength)).toEqual([0, 0])
  const shared = new Float64Array([1, 2, 3, 4])
  const parts = table({ a: shared.subarray(0, 2), b: shared.subarray(2) })
  expect(sent(parts).rows()).toEqual([
    { a: 1, b: 3 },
    { a: 2, b: 4 },
  ])
  expect(Array.from(shared)).toEqual([1, 2, 3, 4])
})

test('a table without rows, and one without columns, arrive as they are', () => {
  for (const empty of [table([]), table([], { columns: { at: { type: 'time' } } })]) {
    const moved = sent(empty)
    expect(moved.names).toEqual(empty.names)
    moved.append([{ at: '2024-03-01' }])
    expect(moved.rows()).toEqual([
      { at: empty.names.length > 0 ? new Date('2024-03-01') : expect.anything() },
    ])
  }
})

test('what is no packed table is refused in a sentence', () => {
  for (const other of [undefined, {}, { kind: 'table' }])
    expect(() => unpackTable(other as never)).toThrow('This is no packed table')
})
