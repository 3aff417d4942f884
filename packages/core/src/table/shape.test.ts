import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readPhrase } from './phrase.ts'
import { readCsv, table } from './read.ts'
import { shape } from './shape.ts'
import type { Table } from './table.ts'
import { rowsWhere } from './where.ts'

/** Shapes by phrases and returns the marks as records, buckets in ISO. */
function shaped(from: Table, phrases: Record<string, unknown>, where?: Record<string, unknown>) {
  const roles = new Map(
    Object.entries(phrases).map(([role, phrase]) => [role, readPhrase(phrase, from, role)]),
  )
  const result = shape(from, roles, { order: 'x', rows: rowsWhere(from, where as never, 'where') })
  return Array.from({ length: result.length }, (_, i) =>
    Object.fromEntries(
      [...result.roles].map(([role, { cells }]) => [
        role,
        cells.type === 'text'
          ? (cells.words[cells.codes[i]] ?? null)
          : cells.type === 'time'
            ? new Date(cells.values[i]).toISOString().slice(0, 16)
            : cells.values[i],
      ]),
    ),
  )
}

const sailings = readCsv(
  'departed,route,n,room\n2024-01-31T23:30,A,1,10\n2024-02-01T00:30,A,2,10\n2024-04-02T00:30,A,4,10\n2024-02-03T08:00,B,8,20\n2024-02-04T08:00,B,,20\n',
  { name: 'sailings' },
)

describe('phrases', () => {
  test('sum by month and route, and months without rows count nothing', () => {
    expect(shaped(sailings, { x: 'month of departed', y: 'sum of n', color: 'route' })).toEqual([
      { x: '2024-01-01T00:00', color: 'A', y: 1 },
      { x: '2024-02-01T00:00', color: 'A', y: 2 },
      { x: '2024-04-01T00:00', color: 'A', y: 4 },
      { x: '2024-02-01T00:00', color: 'B', y: 8 },
      { x: '2024-03-01T00:00', color: 'A', y: 0 },
    ])
    const means = shaped(sailings, { x: 'month of departed', y: 'mean of n', color: 'route' })
    expect(means.at(-1)).toEqual({ x: '2024-03-01T00:00', color: 'A', y: Number.NaN })
  })

  test.each([
    [{ x: 'route', y: 'count' }, [3, 2]],
    [{ x: 'route', y: 'distinct room' }, [1, 1]],
    [{ x: 'route', y: 'median of n' }, [2, 8]],
    [{ x: 'route', y: 'last of n' }, [4, 8]],
    [{ x: 'route', y: 'max of n' }, [4, 8]],
    [{ x: 'route', y: 'share of n' }, [7 / 15, 8 / 15]],
    [{ x: 'route', y: 'rank of n' }, [2, 1]],
    [{ x: 'route', y: { ratio: 'n', to: 'room' } }, [7 / 30, 8 / 40]],
    [{ x: 'weekday of departed', y: 'count' }, [1, 1, 1, 1, 1]],
  ])('%o', (phrases, expected) => {
    const y = shaped(sailings, phrases).map(mark => mark.y)
    expected.forEach((value, i) => {
      expect(y[i]).toBeCloseTo(value, 12)
    })
  })

  test('running totals run along x for each series', () => {
    const marks = shaped(sailings, { x: 'month of departed', y: 'sum so far of n', color: 'route' })
    const a = marks.filter(mark => mark.color === 'A').sort((p, q) => (String(p.x) < String(q.x) ? -1 : 1))
    expect(a.map(mark => mark.y)).toEqual([1, 3, 3, 7])
  })

  test('conditions choose rows', () => {
    expect(shaped(sailings, { x: 'route', y: 'count' }, { n: { from: 2, until: 8 } })).toEqual([
      { x: 'A', y: 2 },
    ])
    expect(
      shaped(
        sailings,
        { x: 'route', y: 'count' },
        { 'month of departed': '2024-02-01', route: { not: 'B' } },
      ),
    ).toEqual([{ x: 'A', y: 1 }])
    expect(shaped(sailings, { x: 'route', y: 'count' }, { n: null })).toEqual([{ x: 'B', y: 1 }])
    expect(shaped(sailings, { x: 'route', y: 'count' }, { route: ['B', 'C'] })).toEqual([{ x: 'B', y: 2 }])
  })

  test.each([
    ['sum of nn', 'unknown-column', 'Did you mean "sum of n"?'],
    ['roote', 'unknown-column', 'Did you mean "route"?'],
    ['summ of n', 'unknown-phrase', 'Did you mean "sum"?'],
    ['sum of route', 'wrong-type', '"sum of route" needs a number column, and "route" is text'],
    ['month of n', 'wrong-type', 'needs a time column'],
    [{ sum: 'n', mean: 'n' }, 'unknown-phrase', 'two things at once'],
    [{ sum: 'm' }, 'unknown-column', 'There is no column "m"'],
    [42, 'unknown-phrase', '42 is not a phrase'],
  ])('%o is refused with a remedy', (phrase, code, sentence) => {
    expect(() => readPhrase(phrase, sailings, 'y')).toThrow(
      expect.objectContaining({ code, path: expect.stringContaining('y') }),
    )
    try {
      readPhrase(phrase, sailings, 'y')
    } catch (error) {
      expect((error as { sentence: string }).sentence).toContain(sentence)
    }
  })

  test('a column name wins, and two readings are an error', () => {
    const odd = table({ 'sum of n': [1], n: [2], 'month of at': ['2024-01-01'], at: ['2024-01-01'] })
    expect(readPhrase('sum of n', odd, 'y')).toEqual({ is: 'column', column: 'sum of n' })
    expect(() => readPhrase('day of month of at', odd, 'x')).toThrow(
      expect.objectContaining({ code: 'two-readings' }),
    )
    expect(readPhrase({ 'day of month': 'at' }, odd, 'x')).toEqual({
      is: 'cycle',
      cycle: 'day of month',
      column: 'at',
    })
  })

  test('groups lose no row and no value, whatever the rows', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            at: fc.integer({ min: 0, max: 1e12 }),
            g: fc.option(fc.constantFrom('p', 'q', 'r'), { nil: null }),
            v: fc.option(fc.integer({ min: -1000, max: 1000 }), { nil: null }),
          }),
          { minLength: 1, maxLength: 60 },
        ),
        rows => {
          const data = table(
            { at: rows.map(r => new Date(r.at)), g: rows.map(r => r.g), v: rows.map(r => r.v) },
            { columns: { g: { type: 'text' }, v: { type: 'number' } } },
          )
          const roles = new Map([
            ['x', readPhrase('week of at', data, 'x')],
            ['color', readPhrase('g', data, 'color')],
            ['y', readPhrase('sum of v', data, 'y')],
          ])
          const result = shape(data, roles, { order: 'x' })
          const all: number[] = []
          for (let i = 0; i < result.length; i++) all.push(...Array.from(result.rowsOf(i)))
          expect(all.sort((a, b) => a - b)).toEqual(rows.map((_, i) => i))
          const { cells } = result.roles.get('y')!
          const sum =
            cells.type === 'text' ? 0 : cells.values.reduce((total, value) => total + (value || 0), 0)
          expect(sum).toBe(rows.reduce((total, row) => total + (row.v ?? 0), 0))
        },
      ),
    )
  })
})
