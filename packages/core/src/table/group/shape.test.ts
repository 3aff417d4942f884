import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Table } from '../live/table.ts'
import { readCsv, table } from '../open/read.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { shape } from './shape.ts'
import { isRest } from './top.ts'
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
    [{ x: 'route', y: 'p75 of n' }, [3, 8]],
    [{ x: 'route', y: { p75: 'n', label: 'Slow' } }, [3, 8]],
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

  test('top keeps the best by the measure, and the rest is never taken for a real Other', () => {
    const piers = table({ pier: ['Old Mole', 'Other', 'Kelp Quay', 'Sound End'], n: [5, 9, 3, 1] })
    const roles = new Map([
      ['x', readPhrase('pier', piers, 'x')],
      ['y', readPhrase('sum of n', piers, 'y')],
    ])
    const kept = shape(piers, roles, { order: 'x', top: { role: 'x', count: 2, rest: true } })
    const { cells } = kept.roles.get('x')!
    const { cells: sums } = kept.roles.get('y')!
    if (cells.type !== 'text' || sums.type === 'text') throw new Error('The cells are of the wrong type')
    const pairs = Array.from(
      { length: kept.length },
      (_, i) => [cells.words[cells.codes[i]], sums.values[i]] as const,
    )
    expect(pairs.map(([word, sum]) => [word.replace('\u2060', ''), sum])).toEqual([
      ['Old Mole', 5],
      ['Other', 9],
      ['Other', 4],
    ])
    expect(pairs.filter(([word]) => isRest(word)).length).toBe(1)
    expect(Array.from(kept.rowsOf(2))).toEqual([2, 3])
    const cut = shape(piers, roles, { order: 'x', top: { role: 'x', count: 2, rest: undefined } })
    expect(cut.length).toBe(2)
  })

  test('buckets follow the clock across a change to summer time', () => {
    const times = Array.from(
      { length: 48 },
      (_, i) => new Date(Date.parse('2024-03-30T12:00Z') + i * 3_600_000),
    )
    const lisbon = table({ at: times }, { columns: { at: { timeZone: 'Europe/Lisbon' } } })
    const days = shaped(lisbon, { x: 'day of at', y: 'count' })
    // The Sunday has 23 hours, and Monday begins at 23:00 UTC.
    expect(days.map(day => [day.x, day.y])).toEqual([
      ['2024-03-30T00:00', 12],
      ['2024-03-31T00:00', 23],
      ['2024-03-31T23:00', 13],
    ])
  })

  test('bins have neat edges and hold every value', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 2, maxLength: 200 }),
        values => {
          const data = table({ v: Float64Array.from(values) })
          const roles = new Map([
            ['x', readPhrase('bins of v', data, 'x')],
            ['y', readPhrase('count', data, 'y')],
          ])
          const result = shape(data, roles, { order: 'x' })
          const { cells, ends } = result.roles.get('x')!
          if (cells.type === 'text' || !ends) throw new Error('There are no bins')
          let held = 0
          for (let i = 0; i < result.length; i++) {
            for (const row of Array.from(result.rowsOf(i))) {
              const width = ends[i] - cells.values[i]
              expect(values[row]).toBeGreaterThanOrEqual(cells.values[i] - width * 1e-6)
              expect(values[row]).toBeLessThanOrEqual(ends[i] + width * 1e-6)
              held++
            }
          }
          expect(held).toBe(values.length)
        },
      ),
    )
  })

  test('bins keep the shape of the others beside a far value, and their number has an end', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 4, max: 14, noNaN: true }), { minLength: 60, maxLength: 300 }),
        fc.double({ min: 20, max: 1e9, noNaN: true }),
        (usual, far) => {
          const widthWith = (values: readonly number[]) => {
            const data = table({ v: Float64Array.from(values) })
            const roles = new Map([
              ['x', readPhrase('bins of v', data, 'x')],
              ['y', readPhrase('count', data, 'y')],
            ])
            const { cells, ends } = shape(data, roles, { order: 'x' }).roles.get('x')!
            if (cells.type === 'text' || !ends) throw new Error('There are no bins')
            return ends[0] - cells.values[0]
          }
          // A step of neat widths is at most two and a half times the last.
          const width = widthWith([...usual, far])
          expect(far / width).toBeLessThanOrEqual(201)
          if (far < 150) expect(width).toBeLessThanOrEqual(2.5 * widthWith(usual) + 1e-9)
        },
      ),
    )
  })

  test('bins of whole numbers hold as many of them each, the last as well', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 400 }), fc.integer({ min: 2, max: 40 }), (greatest, each) => {
        // Each number as often as the others: so must bins be, but for the first and last, cut by the data.
        const v = Float64Array.from({ length: (greatest + 1) * each }, (_, i) => i % (greatest + 1))
        const result = shaped(table({ v }), { x: 'bins of v', y: 'count' })
        const counts = result.map(({ y }) => Number(y))
        const inner = counts.slice(1, -1)
        expect(new Set(inner).size).toBeLessThanOrEqual(1)
        if (inner.length > 0 && inner[0] <= 2 * each) expect(counts.at(-1)).toBeLessThanOrEqual(inner[0])
      }),
    )
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
    ['summ of n', 'unknown-phrase', 'Did you mean "sum of n"?'],
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

test('the best categories of plain rows are kept by the total of what they stand at, and only a colour gathers the others', () => {
  const rows = table({
    pier: ['Mole', 'Quay', 'Stairs', 'Mole', 'Quay'],
    boarded: [4, 9, 7, 8, 1],
  })
  const kept = (roles: Record<string, string>, top: NonNullable<Parameters<typeof shape>[2]>['top']) => {
    const meanings = Object.entries(roles).map(
      ([role, phrase]) => [role, readPhrase(phrase, rows, role)] as const,
    )
    const shaped = shape(rows, new Map(meanings), { top })
    const { cells } = shaped.roles.get(top!.role)!
    return Array.from({ length: shaped.length }, (_, mark) => [
      cells.type === 'text' && cells.words[cells.codes[mark]],
      shaped.rowOf!(mark),
    ])
  }
  const bars = { x: 'pier', y: 'boarded' }
  expect(kept(bars, { role: 'x', count: 2, rest: undefined })).toEqual([
    ['Mole', 0],
    ['Quay', 1],
    ['Mole', 3],
    ['Quay', 4],
  ])
  expect(() => kept(bars, { role: 'x', count: 2, rest: true })).toThrow('without being added up')
  const points = { x: 'boarded', y: 'boarded', color: 'pier' }
  expect(
    kept(points, { role: 'color', count: 1, rest: 'Others' }).map(([word]) => String(word).slice(0, 6)),
  ).toEqual(['Mole', 'Others', 'Others', 'Mole', 'Others'])
})
