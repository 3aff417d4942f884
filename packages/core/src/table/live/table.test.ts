import { describe, expect, test, vi } from 'vitest'
import { readCsv, readJson, readLines, table } from '../open/read.ts'
import { lookAt, lookText } from '../reshape/look.ts'
import { keepRecent } from './keep.ts'

const failure = (run: () => unknown) => {
  try {
    run()
  } catch (error) {
    return error as { code: string; sentence: string; path: string }
  }
  throw new Error('It did not fail')
}

describe('reading', () => {
  test('finds types from text, and names what it could not read by line', () => {
    const sailings = readCsv(
      'id,departed,route,passengers,fare\n1,2024-03-01T08:30,Tern Point,12,"€1,200.50"\n2,2024-03-01T10:00,,full,€3\n3,2024-03-02T08:30,Kelp Narrows,,€4\n',
      { name: 'sailings' },
    )
    expect(sailings.names.map(name => sailings.column(name)!.type)).toEqual([
      'number',
      'time',
      'text',
      'text',
      'number',
    ])
    expect(sailings.row(0)).toEqual({
      id: 1,
      departed: new Date('2024-03-01T08:30Z'),
      route: 'Tern Point',
      passengers: '12',
      fare: 1200.5,
    })
    const told = readCsv('a,n\n1,"two\nlines"\n2,x\n', { name: 'told', columns: { n: { type: 'number' } } })
    expect(told.findings[0]).toMatchObject({
      code: 'unreadable-cells',
      message: expect.stringContaining('2 cells of "n" are no numbers'),
    })
    expect(told.report.columns[1].examples.map(example => example.line)).toEqual([2, 4])
  })

  test('dates that can be read in two ways are told of, and are dates once somebody says which', () => {
    const text = 'departed\n03/04/2024\n05/06/2024\n'
    const unsettled = readCsv(text)
    expect(unsettled.column('departed')!.type).toBe('text')
    expect(unsettled.findings).toMatchObject([
      { code: 'unsettled-dates', message: expect.stringContaining('"03/04/2024"'), path: 'columns.departed' },
    ])
    expect(lookText(lookAt(unsettled))).toContain('say "day first" or "month first"')
    const first = (dates: 'day first' | 'month first') =>
      readCsv(text, { columns: { departed: { dates } } }).row(0).departed
    expect(first('day first')).toEqual(new Date('2024-04-03'))
    expect(first('month first')).toEqual(new Date('2024-03-04'))
  })

  test('numbers that can be read in two ways are told of, until somebody says what separates decimals', () => {
    const text = 'pier;cost\nOld Mole;1.204\nKelp Quay;980\n'
    const unsettled = readCsv(text)
    expect(unsettled.row(0).cost).toBe(1204)
    expect(unsettled.findings).toMatchObject([
      { code: 'unsettled-numbers', message: expect.stringContaining('"1.204"'), path: 'columns.cost' },
    ])
    expect(lookText(lookAt(unsettled))).toContain('say "decimal point" or "decimal comma"')
    for (const [numbers, cost] of [
      ['decimal comma', 1204],
      ['decimal point', 1.204],
    ] as const) {
      const told = readCsv(text, { columns: { cost: { numbers } } })
      expect(told.row(0).cost).toBe(cost)
      expect(told.findings).toEqual([])
    }
  })

  test('tolerates a few mistyped cells among many numbers', () => {
    const text = `n\n${Array.from({ length: 50 }, (_, i) => (i === 30 ? 'x' : i)).join('\n')}\n`
    const read = readCsv(text)
    expect(read.column('n')!.type).toBe('number')
    expect(read.report.columns[0]).toMatchObject({
      unreadable: 1,
      examples: [{ row: 30, line: 32, text: 'x' }],
    })
  })

  test.each([
    ['codes with leading zeros', ['007', '012'], 'text'],
    ['percentages', ['12%', '7.5 %'], 'number'],
    ['decimal commas', ['1.234,5', '2,25'], 'number'],
    ['thousands', ['1,234', '12,345,678'], 'number'],
    ['days first', ['31/12/2024', '01/02/2024'], 'time'],
    ['unsettled dates', ['01/02/2024', '03/04/2024'], 'text'],
    ['offsets', ['2024-03-01T08:30+02:00', '2024-03-01T08:30:15.5Z'], 'time'],
    ['impossible dates', ['2023-02-29', '2023-13-01'], 'text'],
    ['booleans', [true, false], 'text'],
  ])('%s', (_, values, type) => {
    expect(table({ v: values }).column('v')!.type).toBe(type)
  })

  test('reads values as they are meant', () => {
    const { values } = table({ v: ['1.234,5', '2,25'] }).column('v')!.cells as { values: Float64Array }
    expect([...values]).toEqual([1234.5, 2.25])
    expect(table({ v: ['12%', '7.5 %'] }).row(1)).toEqual({ v: 0.075 })
    expect(table({ v: ['31/12/2024', '01/02/2024'] }).row(1)).toEqual({ v: new Date('2024-02-01') })
    expect(table({ v: ['2024-03-01T08:30+02:00'] }).row(0)).toEqual({ v: new Date('2024-03-01T06:30Z') })
  })

  test('a zone moves clock times but never dates', () => {
    const columns = { at: { timeZone: 'America/St_Johns' }, on: { timeZone: 'America/St_Johns' } }
    const read = readCsv('at,on\n2024-07-01T00:00,2024-07-01\n', { columns })
    expect(read.row(0)).toEqual({ at: new Date('2024-07-01T02:30Z'), on: new Date('2024-07-01T00:00Z') })
  })

  test('takes typed arrays without copying and never writes to them', () => {
    const mine = new Float64Array([1, 2, 3])
    const live = table({ k: ['a', 'b', 'c'], v: mine }, { key: 'k' })
    expect((live.column('v')!.cells as { values: Float64Array }).values.buffer).toBe(mine.buffer)
    live.put({ k: 'b', v: 20 })
    expect([...mine]).toEqual([1, 2, 3])
    expect(live.row(1)).toEqual({ k: 'b', v: 20 })
    expect(table({ v: new Float64Array([1, Number.POSITIVE_INFINITY]) }).findings[0].code).toBe(
      'unreadable-cells',
    )
  })

  test.each([
    [
      'an empty CSV',
      () => readCsv(' \n', { name: 'none.csv' }),
      'empty-data',
      'There is nothing in none.csv',
    ],
    [
      'a short line',
      () => readCsv('a,b\n1,2\n3\n', { name: 'x.csv' }),
      'ragged-row',
      'Line 3 of x.csv has 1 cell, but the header names 2 columns',
    ],
    ['an open quote', () => readCsv('a,b\n1,"2\n'), 'unclosed-quote', 'A quoted cell is not closed'],
    ['no JSON', () => readJson('[{"a":1},\n{"a":}]'), 'bad-json', 'line 2 is not JSON'],
    ['a bad line', () => readLines('{"a":1}\n{"a"\n'), 'bad-json', 'line 2 is not JSON'],
    [
      'lists of different lengths',
      () => table({ a: [1, 2], b: [1] }),
      'different-lengths',
      'Column "b" has 1 values, but "a" has 2',
    ],
    ['rows that are none', () => table([{ a: 1 }, null] as object[]), 'bad-rows', 'Row 2 is null'],
    ['doubled keys', () => table([{ id: 1 }, { id: 1 }], { key: 'id' }), 'duplicate-key', 'have the key "1"'],
    [
      'a misspelt key',
      () => table([{ ident: 1 }], { key: 'idnt' as 'ident' }),
      'unknown-column',
      'Did you mean "ident"?',
    ],
  ])('%s is one plain error', (_, run, code, sentence) => {
    const error = failure(run)
    expect(error.code).toBe(code)
    expect(error.sentence).toContain(sentence)
    expect(error.sentence).not.toContain('\n')
  })

  test('names like __proto__ are only names', () => {
    const read = readCsv('__proto__,constructor\n1,2\n')
    expect(Object.hasOwn(read.row(0), '__proto__')).toBe(true)
    expect(({} as Record<string, unknown>)['1']).toBeUndefined()
    expect(readJson('[{"__proto__": 5}]').row(0)).toEqual(JSON.parse('{"__proto__": 5}'))
  })
})

describe('a live table', () => {
  const start = () =>
    table(
      [
        { id: 'a', n: 1 },
        { id: 'b', n: 2 },
      ],
      { key: 'id' },
    )

  test('appends, puts, removes and replaces by key, and rows stay the same rows', async () => {
    const live = start()
    const changes: unknown[] = []
    live.watch(change => changes.push(change))
    const [a, b] = live.serials
    live
      .append({ id: 'c', n: 3 })
      .put([
        { id: 'b', n: 20 },
        { id: 'd', n: 4 },
      ])
      .remove('a')
    expect(live.rows()).toEqual([
      { id: 'b', n: 20 },
      { id: 'c', n: 3 },
      { id: 'd', n: 4 },
    ])
    expect(live.serials[0]).toBe(b)
    await Promise.resolve()
    expect(changes).toEqual([{ added: [2, 3], changed: [b], removed: [a], replaced: false }])
    live.replace([
      { id: 'd', n: 40 },
      { id: 'b', n: 21 },
    ])
    expect(live.serials[1]).toBe(b)
    expect(live.length).toBe(2)
  })

  test('refuses a key twice, and changes nothing then', () => {
    const live = start()
    expect(
      failure(() =>
        live.append([
          { id: 'z', n: 0 },
          { id: 'a', n: 9 },
        ]),
      ).sentence,
    ).toContain('Use put to replace')
    expect(live.length).toBe(2)
    expect(failure(() => table([{ n: 1 }]).put({ n: 2 })).code).toBe('no-key')
  })
})

test('look says what is in a table', () => {
  const look = lookAt(
    readCsv('route,year,n\nTern Point,2001,1\ntern point,2002,2\nKelp,2003,\n', { name: 'piers' }),
  )
  expect(look.columns.map(column => [column.name, column.type, column.missing, column.distinct])).toEqual([
    ['route', 'text', 0, 3],
    ['year', 'number', 0, 3],
    ['n', 'number', 1, 2],
  ])
  const text = lookText(look)
  expect(text).toContain('piers: 3 rows, 3 columns')
  expect(text).toContain('route: "Tern Point" and "tern point" differ only in case or spaces')
  expect(text).toContain('year: looks like years')
  expect(
    Math.max(
      ...text
        .split('\n')
        .slice(2, 6)
        .map(line => line.length),
    ),
  ).toBeLessThan(100)
})

test('rows that age leave from the front: what stays is not copied, however long that goes on', () => {
  const live = table<any>(
    Array.from({ length: 1000 }, (_, id) => ({ id, at: new Date(id * 1000), n: id })),
    { key: 'id' },
  )
  const copies = ['id', 'at', 'n'].map(name => vi.spyOn(live.column(name)!, 'keep'))
  for (let id = 1000; id < 21_000; id++) {
    live.put({ id, at: new Date(id * 1000), n: id })
    keepRecent(live, 1000, 'at')
  }
  expect(live.length).toBe(1000)
  expect([live.row(0).id, live.row(999).n]).toEqual([20_000, 20_999])
  live.put({ id: 20_500, n: 0 })
  expect(live.length).toBe(1000)
  expect(live.row(500).n).toBe(0)
  for (const copy of copies) expect(copy).not.toHaveBeenCalled()
  // Half-used room is used again rather than left behind.
  const { cells } = live.column('n')!
  expect(cells.type !== 'text' && cells.values.buffer.byteLength).toBeLessThan(8 * 8000)
})

test('a listener that fails starves no other, and a table that nobody watches gathers nothing', async () => {
  const told = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  const live = table<any>([{ a: 1 }])
  live.append({ a: 2 })
  const heard: number[] = []
  live.watch(() => {
    throw new Error('a fault of the listener')
  })
  live.watch(change => heard.push(change.added.length))
  live.append([{ a: 3 }, { a: 4 }])
  await Promise.resolve()
  expect(heard).toEqual([2])
  expect(told).toHaveBeenCalledTimes(1)
  told.mockRestore()
})

test.each([
  ['null', null, 'Row 1 is null'],
  ['plain values', [5, [1]], 'Row 1 is a number'],
  ['nothing that the table has', [{ unknown: 1 }], 'Row 1 has none of the columns'],
  ['nothing at all', [{ a: 1 }, {}], 'Row 2 has none of the columns'],
])('rows of %s are refused, and nothing is added', (_, rows, message) => {
  for (const call of ['append', 'put', 'replace'] as const) {
    const live = table<any>([{ a: 1 }], { key: 'a' })
    expect(() => live[call](rows as never)).toThrow(message)
    expect(live.rows()).toEqual([{ a: 1 }])
  }
})

test('a further column that rows bring is left out, and told of once', () => {
  const live = table<any>([{ a: 1 }])
  live.append({ a: 2, more: 3 }).append({ a: 3, more: 4 })
  expect(live.rows()).toEqual([{ a: 1 }, { a: 2 }, { a: 3 }])
  expect(live.findings.map(finding => finding.code)).toEqual(['unknown-column'])
})

test('columns of one name all stay, whatever the others are called', () => {
  expect(readCsv('a,a,a (2),a\n1,2,3,4').row(0)).toEqual({ a: 1, 'a (2)': 2, 'a (2) (2)': 3, 'a (3)': 4 })
})

test('rows without a key that are exchanged are recognised by their texts and times, where these tell them apart', () => {
  const piers = table([
    { pier: 'Old Mole', day: '2024-03-01', boats: 3 },
    { pier: 'Kelp Quay', day: '2024-03-01', boats: 5 },
  ])
  piers.replace([
    { pier: 'Kelp Quay', day: '2024-03-01', boats: 6 },
    { pier: 'Sound End', day: '2024-03-01', boats: 1 },
    { pier: 'Old Mole', day: '2024-03-01', boats: 2 },
  ])
  expect(Array.from(piers.serials)).toEqual([1, 2, 0])
  // A time that is new in all of them tells nothing.
  piers.replace([
    { pier: 'Old Mole', day: '2024-03-02', boats: 4 },
    { pier: 'Kelp Quay', day: '2024-03-02', boats: 4 },
    { pier: 'Sound End', day: '2024-03-02', boats: 4 },
  ])
  expect(Array.from(piers.serials)).toEqual([0, 1, 2])
  // Two that are called the same are told apart by nothing but their places.
  piers.replace([
    { pier: 'Old Mole', day: '2024-03-02', boats: 2 },
    { pier: 'Old Mole', day: '2024-03-02', boats: 4 },
  ])
  expect(Array.from(piers.serials)).toEqual([0, 1])
})
