import {
  Table as ArrowTable,
  TimestampMillisecond,
  tableFromArrays,
  Utf8,
  vectorFromArray,
} from 'apache-arrow'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readRows, table } from '../../index.ts'

describe('a table from what people have', () => {
  test('values by name: an object, a map, pairs', () => {
    const rows = [
      { name: 'Old Mole', value: 5 },
      { name: 'Kelp Quay', value: 10 },
    ]
    const pairs = rows.map(({ name, value }) => [name, value] as const)
    for (const made of [table(Object.fromEntries(pairs)), table(new Map(pairs)), table(pairs)])
      expect(made.rows()).toEqual(rows)
    const named = table([...pairs], { names: ['pier', 'boats'] })
    expect(named.row(1)).toEqual({ pier: 'Kelp Quay', boats: 10 })
    // Dates to numbers are times.
    const days = table(new Map([[new Date('2024-03-01'), 3]]))
    expect(days.column('name')!.type).toBe('time')
  })

  test('records by name', () => {
    const made = table(new Map([['Old Mole', { boats: 3, fee: 2.5 }]]))
    expect(made.rows()).toEqual([{ name: 'Old Mole', boats: 3, fee: 2.5 }])
  })

  test('any pairs are the rows that they say', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.string({ minLength: 1 }).map(text => `x${text}`),
            fc.integer(),
          ),
        ),
        pairs => {
          const map = new Map(pairs)
          const made = table(map)
          expect(made.rows().map(row => [row.name, row.value])).toEqual([...map])
        },
      ),
    )
  })

  test('lists with names, and whatever yields rows', () => {
    const lists = [
      ['Old Mole', 3, '2024-01-01'],
      ['Kelp Quay', 4, '2024-01-02'],
    ]
    const made = table(lists, { names: ['pier', 'boats', 'day'] })
    expect(made.row(1)).toEqual({ pier: 'Kelp Quay', boats: 4, day: new Date('2024-01-02') })
    function* rows() {
      yield { pier: 'Old Mole' }
      yield { pier: 'Kelp Quay', boats: 2n }
    }
    expect(table(rows()).rows()).toEqual([
      { pier: 'Old Mole', boats: null },
      { pier: 'Kelp Quay', boats: 2 },
    ])
    expect(() => table([['a', 1, 2]])).toThrow('do not say what their values are')
    expect(() => table([['a', 1], ['b']], { names: ['pier', 'boats'] })).toThrow('Row 2 has 1 values')
    expect(table([['a', 1], ['b']], { names: ['pier', 'boats'], ragged: 'fill' }).row(1)).toEqual({
      pier: 'b',
      boats: null,
    })
  })

  test('columns of different length, when that is asked for', () => {
    const columns = { pier: ['Old Mole', 'Kelp Quay'], boats: [3] }
    expect(() => table(columns)).toThrow('has 1 values')
    expect(table(columns, { ragged: 'fill' }).row(1)).toEqual({ pier: 'Kelp Quay', boats: null })
  })

  test('Arrow tables, with their types', () => {
    const day = Date.UTC(2024, 2, 1)
    const arrow = new ArrowTable({
      pier: vectorFromArray(['Old Mole', null], new Utf8()),
      boats: vectorFromArray([3, 4]),
      at: vectorFromArray([new Date(day), new Date(day + 1000)], new TimestampMillisecond()),
    })
    const made = table(arrow)
    expect(made.rows()).toEqual([
      { pier: 'Old Mole', boats: 3, at: new Date(day) },
      { pier: null, boats: 4, at: new Date(day + 1000) },
    ])
    const wind = tableFromArrays({ wind: Float64Array.of(1.5, 2.5) })
    expect(table(wind).column('wind')!.cells).toMatchObject({ values: Float64Array.of(1.5, 2.5) })
  })

  test('rows that come in time: cursors, streams, batches', async () => {
    async function* cursor() {
      yield { pier: 'Old Mole', boats: 3 }
      yield [
        { pier: 'Kelp Quay', boats: 4 },
        { pier: 'Sound End', boats: 5 },
      ]
    }
    expect((await readRows(cursor(), { key: 'pier' })).names).toEqual(['pier', 'boats'])
    expect((await readRows(cursor())).length).toBe(3)
    const stream = new ReadableStream({
      start(controller) {
        controller.enqueue(['Old Mole', 3])
        controller.enqueue(['Kelp Quay', 4])
        controller.close()
      },
    })
    expect((await readRows(stream as never, { names: ['pier', 'boats'] })).row(1)).toEqual({
      pier: 'Kelp Quay',
      boats: 4,
    })
    const arrow = tableFromArrays({ boats: Float64Array.of(1, 2) })
    expect((await readRows(arrow.batches as never)).rows()).toEqual([{ boats: 1 }, { boats: 2 }])
    expect(() => table(cursor() as never)).toThrow('not here yet')
  })

  test('what is none says so', () => {
    for (const [data, words] of [
      [null, 'from null'],
      ['a,b', 'from a string'],
      [{ a: [1], b: 3 }, 'Column "b" is not a list'],
      [[1, 2], 'Row 1 is a number'],
    ] as const)
      expect(() => table(data as never)).toThrow(words)
  })
})
