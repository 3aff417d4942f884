import fc from 'fast-check'
import stringWidth from 'string-width'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, compose, type Description, day, table } from '../index.ts'
import { CELL, measureTerminal, toTerminalText } from './terminal.ts'

const sizes = { title: 12, subtitle: 12, text: 12, caption: 12 }
const draw = (description: object, rows: object[], columns = 80, lines = 24) =>
  toTerminalText(
    compose(
      chart(table(rows), description as Description),
      {},
      {
        width: columns * CELL.width,
        height: lines * CELL.height,
        theme: { ...day, sizes },
        measure: measureTerminal,
      },
    ),
  )
const name = fc.oneof(
  fc.string({ minLength: 1, maxLength: 14 }),
  fc.constantFrom('北の湾', '한국 항로', '👩‍👩‍👧 family', 'e\u0301tude', 'مسار', '\u001b[31mred', 'ﾃｽﾄ'),
)

describe('a chart of characters', () => {
  test('keeps to its columns and lines, whatever the names', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(name, { minLength: 1, maxLength: 8 }),
        fc.constantFrom('bar', 'line', 'scatter', 'area', 'pie'),
        fc.integer({ min: 30, max: 120 }),
        fc.integer({ min: 8, max: 40 }),
        (names, kind, columns, lines) => {
          const rows = names.map((route, i) => ({ route, n: (i * 7) % 11 }))
          const text = draw({ draw: kind, x: 'route', y: 'sum of n' }, rows, columns, lines)
          const all = text.split('\n')
          expect(all.length).toBeLessThanOrEqual(lines)
          for (const line of all) {
            expect(stringWidth(line)).toBeLessThanOrEqual(columns)
            expect(line).not.toMatch(/[\u0000-\u001f\u007f]/)
          }
        },
      ),
      { numRuns: runs(60) },
    )
  })

  test('has bars of equal values of equal length, beside names of any script', () => {
    const names = ['North Sound', '北の湾', '👩‍👩‍👧', 'e\u0301tude', '한국 항로']
    const text = draw(
      { draw: 'bar', x: 'sum of n', y: 'route', label: false },
      names.map(route => ({ route, n: 8 })),
    )
    const bars = text.split('\n').filter(line => names.some(one => line.includes(one)) && line.includes('█'))
    expect(bars).toHaveLength(names.length)
    const starts = bars.map(line => stringWidth(line.slice(0, line.indexOf('█'))))
    const ends = bars.map(line => stringWidth(line.trimEnd()))
    expect(new Set(starts).size).toBe(1)
    expect(new Set(ends).size).toBe(1)
  })

  test('has no half letters where words are written over each other', () => {
    const words = (text: string, x: number) => ({
      kind: 'texts' as const,
      id: text,
      part: 'guide' as const,
      clip: false,
      keys: [0],
      colors: ['#000000'],
      color: Uint16Array.of(0),
      x: Float32Array.of(x * CELL.width),
      y: Float32Array.of(CELL.height),
      texts: [text],
      size: 12,
      weight: 400 as const,
      anchor: 'start' as const,
      turn: 0,
    })
    const place = fc.integer({ min: 0, max: 14 })
    const word = fc.constantFrom('北の湾', 'abc', '👩‍👩‍👧', 'é', '한')
    fc.assert(
      fc.property(fc.array(fc.tuple(word, place), { minLength: 1, maxLength: 6 }), list => {
        const batches = [...list, ['|', 18] as const].map(([text, x]) => words(text, x))
        const line = toTerminalText({ width: 20 * CELL.width, height: CELL.height, batches } as never)
        expect(stringWidth(line.slice(0, line.indexOf('|')))).toBe(18)
      }),
    )
  })

  test('shows longer bars for greater values, to an eighth of a cell', () => {
    const values = [1, 2, 3, 5, 8, 13]
    const text = draw(
      { draw: 'bar', x: 'sum of n', y: 'route', order: 'given', label: false },
      values.map(n => ({ route: `Route ${n}`, n })),
    )
    const eighths = '▏▎▍▌▋▊▉█'
    const lengths = values.map(n => {
      const line = text.split('\n').find(one => new RegExp(`Route ${n}\\D`).test(one))!
      return [...line].reduce((sum, letter) => sum + eighths.indexOf(letter) + 1, 0)
    })
    for (let i = 0; i < values.length; i++)
      expect(Math.abs(lengths[i] / lengths.at(-1)! - values[i] / 13)).toBeLessThan(0.03)
  })

  test('has lying bars of one height each, apart from each other', () => {
    const names = Array.from({ length: 12 }, (_, i) => `Route ${i}`)
    const text = draw(
      { draw: 'bar', x: 'sum of n', y: 'route', order: 'given', label: false },
      names.map(route => ({ route, n: 100 })),
      80,
      44,
    )
    const lines = text.split('\n')
    for (const line of lines) if (line.includes('Route')) expect(line).toContain('██')
    const filled = lines.map(line => line.includes('██'))
    const runs = filled
      .map(on => (on ? 'x' : ' '))
      .join('')
      .trim()
      .split(/ +/)
    expect(runs).toHaveLength(12)
    expect(new Set(runs.map(run => run.length)).size).toBe(1)
  })
})
