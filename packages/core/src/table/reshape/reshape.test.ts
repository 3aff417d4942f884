import { describe, expect, test } from 'vitest'
import { readCsvInParts } from '../open/csv-parts.ts'
import { readCsv, table } from '../open/read.ts'
import { derivedTable as reshape } from './reshape.ts'

const piers = () => readCsv('pier,2001,2002\nOld Mole,5,6\nKelp Quay,1,\n', { name: 'piers', key: 'pier' })

describe('a derived table', () => {
  test('is long or wide, and leads back to what it was', () => {
    const long = reshape(piers(), [{ long: { keep: ['pier'], name: 'year', value: 'boarded' } }])
    expect(long.rows()).toEqual([
      { pier: 'Old Mole', year: '2001', boarded: 5 },
      { pier: 'Kelp Quay', year: '2001', boarded: 1 },
      { pier: 'Old Mole', year: '2002', boarded: 6 },
      { pier: 'Kelp Quay', year: '2002', boarded: null },
    ])
    expect(Array.from(long.sourceRows!(2))).toEqual([0])
    expect(reshape(long, [{ wide: { name: 'year', value: 'boarded' } }]).rows()).toEqual(piers().rows())
  })

  test('times that become columns are named by as little as tells when they are', () => {
    const visits = table(
      { at: ['2024-12-31T23:30', '2025-01-01T00:30'], boats: [1, 2] },
      { columns: { at: { timeZone: 'Asia/Tokyo' } } },
    )
    const wide = (by: string) =>
      reshape(visits, [
        { group: [by], values: ['sum of boats'] },
        { wide: { name: by, value: 'sum of boats' } },
      ]).names
    expect(wide('year of at')).toEqual(['2024', '2025'])
    expect(wide('quarter of at')).toEqual(['2024-10', '2025-01'])
    expect(wide('day of at')).toEqual(['2024-12-31', '2025-01-01'])
    expect(wide('hour of at')).toEqual(['2024-12-31T23:00', '2025-01-01T00:00'])
  })

  test('filters, sorts, groups and keeps the last, and knows the rows behind each row', () => {
    const sailings = table([
      { at: '2024-01-01', route: 'A', n: 3 },
      { at: '2024-01-02', route: 'B', n: 9 },
      { at: '2024-01-03', route: 'A', n: 5 },
      { at: '2024-02-03', route: 'A', n: null as number | null },
    ])
    const sorted = reshape(sailings, [{ where: { route: 'A' } }, { sort: 'n', order: 'down' }])
    expect(sorted.rows().map(row => row.n)).toEqual([5, 3, null])
    expect(Array.from(sorted.sourceRows!(0))).toEqual([2])
    expect(
      reshape(sailings, [{ lastOf: 'route' }])
        .rows()
        .map(row => row.n),
    ).toEqual([9, null])
    const grouped = reshape(sailings, [{ group: ['route'], values: ['sum of n', 'count'] }])
    expect(grouped.rows()).toEqual([
      { route: 'A', 'sum of n': 8, count: 3 },
      { route: 'B', 'sum of n': 9, count: 1 },
    ])
    expect(Array.from(grouped.sourceRows!(0))).toEqual([0, 2, 3])
  })

  test('follows its source, and keeps its words in their order so that colours stay', async () => {
    const source = piers()
    const some = reshape(source, [{ where: { pier: { not: 'Old Mole' } } }])
    const { cells } = some.column('pier')!
    expect(cells.type === 'text' && cells.words).toEqual(['Old Mole', 'Kelp Quay'])
    source.put({ pier: 'Sound End', 2001: 4, 2002: 4 })
    await Promise.resolve()
    expect(some.rows().map(row => row.pier)).toEqual(['Kelp Quay', 'Sound End'])
    source.remove('Kelp Quay').append({ pier: 'Weir Stage', 2001: 1, 2002: 1 })
    await Promise.resolve()
    expect(some.rows().map(row => row.pier)).toEqual(['Sound End', 'Weir Stage'])
  })

  test('reads columns as another type, and follows its source in it', async () => {
    const source = readCsv(
      'id,year,day,berth,left\n1,2023,20240301,07,2024-03-01\n2,2024,20240302,x,2024-03-02\n',
      {
        key: 'id',
        columns: { year: { label: 'Season', format: { minimumFractionDigits: 1 } }, berth: { type: 'text' } },
      },
    )
    const types = { year: 'text', day: 'time', berth: 'number', left: 'text' } as const
    const read = reshape(source, [{ types }])
    expect(read.rows()).toEqual([
      { id: 1, year: '2023', day: new Date('2024-03-01'), berth: 7, left: '2024-03-01' },
      { id: 2, year: '2024', day: new Date('2024-03-02'), berth: null, left: '2024-03-02' },
    ])
    expect(read.column('year')!.label).toBe('Season')
    expect(read.findings).toEqual([
      expect.objectContaining({ code: 'unreadable-cells', path: 'columns.berth' }),
    ])
    source.put({ id: 3, year: 2025, day: 20240303, berth: '09', left: '2024-03-03' })
    await Promise.resolve()
    expect(read.row(2)).toEqual({
      id: 3,
      year: '2025',
      day: new Date('2024-03-03'),
      berth: 9,
      left: '2024-03-03',
    })
    // A year is a date where a column is told to be of dates.
    expect(readCsv('year\n2023\n', { columns: { year: { type: 'time' } } }).row(0)).toEqual({
      year: new Date('2023-01-01'),
    })
    // There and back again.
    const back = reshape(read, [{ types: { year: 'time', day: 'text', left: 'time' } }])
    expect(back.row(0)).toMatchObject({
      year: new Date('2023-01-01'),
      day: '2024-03-01',
      left: new Date('2024-03-01'),
    })
    expect(() => reshape(source, [{ types: { yaer: 'text' } }])).toThrow(
      expect.objectContaining({ code: 'unknown-column', path: 'shape[0].types.yaer' }),
    )
  })

  test('says which step it does not understand', () => {
    expect(() => reshape(piers(), [{ sort: 'peer' }])).toThrow(
      expect.objectContaining({
        code: 'unknown-column',
        path: 'shape[0].sort',
        hint: 'Did you mean "pier"?',
      }),
    )
    expect(() => reshape(piers(), [{ group: ['pier'], values: ['2001'] }])).toThrow(
      expect.objectContaining({ code: 'not-grouped' }),
    )
  })
})

describe('CSV in parts', () => {
  const text = `n,word\n${Array.from({ length: 90_000 }, (_, i) => `${i},"line\n${i % 7}, quoted"`).join('\n')}\n`

  test('is the same table, told of on the way', async () => {
    const shares: number[] = []
    const parts = await readCsvInParts(text, { progress: done => shares.push(done) })
    const whole = readCsv(text)
    expect(parts.length).toBe(90_000)
    expect(parts.row(89_999)).toEqual(whole.row(89_999))
    expect(shares.length).toBeGreaterThan(1)
    expect(shares.at(-1)).toBe(1)
    shares.forEach((share, i) => {
      if (i > 0) expect(share).toBeGreaterThan(shares[i - 1])
    })
  })

  test('can be called off', async () => {
    const signal = { aborted: false }
    const reading = readCsvInParts(text, {
      signal,
      progress: () => {
        signal.aborted = true
      },
    })
    await expect(reading).rejects.toMatchObject({ code: 'aborted' })
  })
})
