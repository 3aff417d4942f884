import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import type { Table } from '../live/table.ts'
import { readCsvInParts } from '../open/csv-parts.ts'
import { readCsv } from '../open/read.ts'
import { plainCsv } from './plain-csv.ts'
import { splitCsv } from './split-csv.ts'

const cell = fc.oneof(
  fc.string({ maxLength: 10 }),
  fc.constantFrom('a,b', 'two\nlines', '"quoted"', ';', '\t', ' blank ', '=1+1'),
)
const grid = fc
  .integer({ min: 2, max: 5 })
  .chain(width =>
    fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 12 }),
  )
const header = (width: number) => Array.from({ length: width }, (_, i) => `c${i}`)

describe('CSV', () => {
  test('of any cells comes back as it was written, whatever the separator and line ends', () => {
    fc.assert(
      fc.property(
        grid,
        fc.constantFrom(',', ';', '\t', '|'),
        fc.constantFrom('\n', '\r\n'),
        (rows, separator, newline) => {
          // Lines of nothing but blanks are none.
          fc.pre(rows.every(row => row.some(text => text.trim() !== '')))
          const quoted = (text: string) => `"${text.replace(/"/g, '""')}"`
          const lines = [header(rows[0].length), ...rows].map(row => row.map(quoted).join(separator))
          const { names, columns } = splitCsv(lines.join(newline), { separator })
          expect(names).toEqual(header(rows[0].length))
          expect(rows.map((_, i) => columns.map(column => column[i]))).toEqual(rows)
        },
      ),
    )
  })

  test('is taken apart by what separates its cells, in short texts and in ones with decimal commas too', () => {
    for (const [text, names] of [
      ['pier;cost\nOld Mole;1,204\n', ['pier', 'cost']],
      ['pier;cost\n', ['pier', 'cost']],
      ['pier\tcost\nMole, old\t3\nQuay, new\t4\n', ['pier', 'cost']],
      ['pier\nMole, old\n', ['pier']],
      ['"pier; old",cost\nMole,3\n', ['pier; old', 'cost']],
      ['pier,cost\nMole;x,3\nQuay;y,4\n', ['pier', 'cost']],
      ['\n\npier|cost\nMole|3\n', ['pier', 'cost']],
    ] as const)
      expect(splitCsv(text, { ragged: 'fill' }).names, text).toEqual(names)
    const word = fc.constantFrom('Old Mole', 'Kelp Quay', '', '12', '1.5', 'x')
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 5 }).chain(width =>
          fc.array(fc.array(fc.oneof(word, fc.constant('1,5')), { minLength: width, maxLength: width }), {
            maxLength: 5,
          }),
        ),
        fc.constantFrom(';', '\t', '|'),
        fc.constantFrom('', '\n', '\n\n'),
        (rows, separator, end) => {
          const names = header(rows[0]?.length ?? 2)
          const text = [names, ...rows].map(cells => cells.join(separator)).join('\n') + end
          expect(splitCsv(text).names).toEqual(names)
        },
      ),
    )
  })

  test('that the quick parser takes is what the careful one reads', () => {
    const token = fc.constantFrom('a', '12', '', ' ', ';', ',', ',', ',', '\n', '\n', '\r\n', '\r', '"x"')
    const line = fc.array(fc.constantFrom('a', '12', '', ' '), { minLength: 3, maxLength: 3 })
    const tidy = fc
      .tuple(
        fc.array(line, { minLength: 1, maxLength: 8 }),
        fc.constantFrom('\n', '\r\n'),
        fc.constantFrom('', '\n'),
      )
      .map(([lines, end, last]) => ['x,y,z', ...lines.map(cells => cells.join())].join(end) + last)
    const wild = fc.array(token, { maxLength: 40 }).map(tokens => tokens.join(''))
    let taken = 0
    fc.assert(
      fc.property(fc.oneof(tidy, wild), text => {
        const plain = plainCsv(text, ',')
        if (!plain) return
        taken++
        const careful = splitCsv(text, { separator: ',' })
        const columns = plain.header.map((): string[] => [])
        for (const { columns: part, first } of plain.parts()) {
          expect(first).toBe(columns[0].length)
          for (const [c, cells] of part.entries()) columns[c].push(...cells)
        }
        expect(columns).toEqual(careful.columns)
        expect(plain.rows).toBe(careful.columns[0].length)
        // With fewer lines than are looked at, the sample is all of them, or nearly.
        expect(plain.sample[0].length).toBeGreaterThan(0)
        for (const [c, cells] of plain.sample.entries())
          for (const cell of cells) expect(columns[c]).toContain(cell)
        expect(careful.lineOf(careful.columns[0].length - 1)).toBe(careful.columns[0].length + 1)
      }),
      { numRuns: runs(2000) },
    )
    expect(taken).toBeGreaterThan(runs(500))
    // Long texts are taken so, with the same names and the same errors.
    const long = (last: string) => `a, b ,a\n${'1,x,3\n'.repeat(3000)}${last}`
    expect(plainCsv(long('4,5,6'), ',')).toBeDefined()
    expect(readCsv(long('4,5,6')).names).toEqual(['a', 'b', 'a (2)'])
    expect(readCsv(long('4,y,6')).row(3000)).toEqual({ a: 4, b: 'y', 'a (2)': 6 })
    expect(readCsv(long('no,y,6')).findings[0].message).toContain('"no" in line 3002')
    for (const odd of ['4,5', '4,5,6,7', '4,5\n6,7,8,9'])
      expect(() => readCsv(long(odd))).toThrow(
        expect.objectContaining({ code: 'ragged-row', message: expect.stringContaining('Line 3002') }),
      )
  })

  test('of more than one part has every row, and columns that are empty at first', () => {
    const lines = Array.from(
      { length: 150_000 },
      (_, i) =>
        `${i},pier ${i % 7},2024-01-${String((i % 28) + 1).padStart(2, '0')},${i === 149_999 ? 'late' : ''}`,
    )
    const text = `id,pier,day,note\r\n${lines.join('\r\n')}\r\n`
    expect(text.length).toBeGreaterThan(1 << 21)
    const read = readCsv(text)
    expect(read.length).toBe(150_000)
    expect(read.names.map(name => read.column(name)!.type)).toEqual(['number', 'text', 'time', 'text'])
    for (const row of [0, 74_999, 75_000, 149_999])
      expect(read.row(row)).toEqual({
        id: row,
        pier: `pier ${row % 7}`,
        day: new Date(Date.UTC(2024, 0, (row % 28) + 1)),
        note: row === 149_999 ? 'late' : null,
      })
  })

  test('read in parts is the same table, or the same error', async () => {
    const own = fc.constantFrom(
      ...[
        '7',
        '2024-03-01',
        'Tern Point',
        '"two\nlines"',
        '"a, ""b"""',
        '',
        '5" pipe',
        '1,2',
        '"open',
        '  ',
        '"x"y',
      ],
    )
    const line = fc.array(own, { minLength: 2, maxLength: 2 }).map(cells => `${cells.join(',')}\n`)
    const message = (error: Error) => ({ message: error.message })
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom<string[]>('1,Old Mole\n', '2,"Quay, new"\n', '3,"two\nlines"\n'), {
          minLength: 1,
        }),
        // Of two faults either may be told.
        fc.array(fc.record({ line, at: fc.nat(99) }), { maxLength: 1 }),
        fc.constantFrom('', '\ufeff'),
        fc.constantFrom<'fill' | 'refuse'>('fill', 'refuse'),
        async (usual, others, mark, ragged) => {
          // Long enough for several parts.
          const lines = Array.from({ length: 40_000 }, (_, i) => usual[i % usual.length])
          for (const { line, at } of others) lines.splice(at * 400, 0, line)
          const text = `${mark}"number","pier"\n${lines.join('')}`
          const read = (table: Table) => ({
            rows: table.rows(),
            types: table.names.map(name => [name, table.column(name)!.type]),
            findings: table.findings,
            report: table.report,
          })
          const attempt = () => read(readCsv(text, { ragged }))
          const whole = (() => {
            try {
              return attempt()
            } catch (error) {
              return message(error as Error)
            }
          })()
          const parts = await readCsvInParts(text, { ragged }).then(read, message)
          expect(parts).toEqual(whole)
        },
      ),
      { numRuns: runs(15) },
    )
  })

  test.each([
    ['a,b\n1,2,3\n', 'ragged-row', 'Line 2'],
    ['a,b\n"x\ny",2\n1\n', 'ragged-row', 'Line 4'],
    ['', 'empty-data', 'nothing'],
    ['a,b\n"1,2\n', 'unclosed-quote', 'not closed'],
  ])('%j is refused by line', (text, code, sentence) => {
    expect(() => splitCsv(text)).toThrow(
      expect.objectContaining({ code, message: expect.stringContaining(sentence) }),
    )
  })

  test('short lines are filled and long ones cut when told so; columns without a name get one', () => {
    const { names, columns } = splitCsv('a,,a\n1\n1,2,3,4\n', { ragged: 'fill' })
    expect(names).toEqual(['a', 'column 2', 'a (2)'])
    expect(columns).toEqual([
      ['1', '1'],
      ['', '2'],
      ['', '3'],
    ])
  })
})
