import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { chart, compose, DapploError, table } from '../index.ts'
import { checkState, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { isColor } from './check-color.ts'
import { plainText } from './plain-text.ts'

const data = table([
  { a: 1, b: 2 },
  { a: 2, b: 5 },
])
const frame = { width: 400, height: 300, measure: measureInter }
const line = { draw: 'line', x: 'a', y: 'b' } as const
const deep = (depth: number): unknown => {
  let out: unknown = 1
  for (let i = 0; i < depth; i++) out = i % 2 ? [out] : { a: out }
  return out
}
const refused = (act: () => unknown): DapploError => {
  try {
    act()
  } catch (error) {
    expect(error).toBeInstanceOf(DapploError)
    return error as DapploError
  }
  throw new Error('Nothing was refused')
}

describe('a colour is a colour and nothing else', () => {
  test.each([
    '#abc',
    '#AABBCC80',
    'teal',
    'Transparent',
    'rgb(1 2 3 / 50%)',
    'hsl(120deg 50% 50%)',
    'oklch(0.7 0.1 200)',
    'color(display-p3 1 0 0)',
  ])('%s is one', text => expect(isColor(text)).toBe(true))
  test.each([
    '',
    'notacolour',
    '#12',
    'url(a.svg#b)',
    'image-set("a.png" 1x)',
    'var(--x)',
    'var(--x, url(a))',
    'rgb(1,2,3) url(a)',
    'rgb(var(--x))',
    'rgb()',
    'red;fill:url(a)',
    5,
    null,
  ])('%s is none', text => expect(isColor(text)).toBe(false))

  const bad = 'url(https://far.example/a.svg#b)'
  test.each([
    ['style.color', { style: { color: bad } }],
    ['background', { background: bad }],
    ['background.color', { background: { color: bad } }],
    ['scales.color.colors[0]', { scales: { color: { colors: [bad] } } }],
    ['scales.color.colors.x', { scales: { color: { colors: { x: bad } } } }],
    ['axes.y.grid.color', { axes: { y: { grid: { color: bad } } } }],
    ['draw[0].style.color', { draw: [{ as: 'line', style: { color: bad } }] }],
  ])('%s', (path, more) => {
    expect(refused(() => chart(data, { ...line, ...more } as never))).toMatchObject({
      code: 'bad-color',
      path,
    })
  })
  test.each([
    ['house.palette[0]', { house: { palette: [bad] } }],
    ['house.palette[1]', { house: { palette: ['teal', undefined] } }],
    ['house.day.background', { house: { day: { background: bad } } }],
    ['house.day.text', { house: { day: { text: null } } }],
    ['columns.a.colors.x', { house: { columns: { a: { colors: { x: bad } } } } }],
  ])('%s', (path, more) => {
    expect(refused(() => compose(chart(data, line), {}, { ...frame, ...more } as never)).path).toContain(path)
  })
  test('of a column', () => {
    const told = table([{ a: 1, b: 2 }], { columns: { a: { colors: { x: bad } } } })
    expect(refused(() => chart(told, line)).code).toBe('bad-color')
  })
})

test.each([
  ['a locale of another system', { locale: 'de_DE' }, 'bad-locale', 'Did you mean "de-DE"?'],
  ['no locale', { locale: 'nonsense-locale-xx-yy!' }, 'bad-locale', 'BCP 47'],
  ['a width that is none', { width: Number.NaN }, 'bad-frame', ''],
  ['an endless height', { height: Number.POSITIVE_INFINITY }, 'bad-frame', ''],
  ['a frame of square kilometres', { width: 1e6, height: 1e6 }, 'bad-frame', ''],
  ['too fine a frame', { width: 15_000, height: 15_000, density: 3 }, 'bad-frame', ''],
  ['a density of nothing', { density: 0 }, 'bad-frame', ''],
])('%s is refused', (_, more, code, hint) => {
  const error = refused(() => compose(chart(data, line), {}, { ...frame, ...more }))
  expect(error.code).toBe(code)
  expect(error.hint).toContain(hint)
})

test.each([
  ['money without a currency', { axes: { y: { format: { style: 'currency' } } } }, 'axes.y.format'],
  ['two hundred digits', { axes: { y: { format: { maximumFractionDigits: 200 } } } }, 'axes.y.format'],
])('a format that cannot be used is refused: %s', (_, more, path) => {
  expect(refused(() => chart(data, { ...line, ...more } as never))).toMatchObject({
    code: 'bad-format',
    path,
  })
})

test.each(['x', 'y', 'where', 'label', 'legend', 'scales', 'style', 'tooltip', 'background', 'axes'])(
  'data that hold each other ten thousand deep are refused in %s, and in a state',
  place => {
    refused(() => chart(data, { ...line, [place]: deep(10_000) } as never))
    refused(() => checkState({ zoom: deep(10_000) }))
  },
)

test('numbers that are none are refused wherever they stand', () => {
  const places = [
    { x: { value: Number.NaN } },
    { style: { width: Number.POSITIVE_INFINITY } },
    { style: { width: 1e308 } },
    { y: { value: 1.7e308 } },
    { axes: { x: { tickLength: Number.POSITIVE_INFINITY } } },
    { scales: { y: { domain: [0, Number.NaN] } } },
    { scales: { y: { pad: 1e308 } } },
  ]
  for (const more of places)
    expect(refused(() => chart(data, { ...line, ...more } as never)).code).toBe('bad-option')
})

test.each([
  null,
  undefined,
  5,
  'x',
  [],
  { hidden: 5 },
  { hidden: [1] },
  { selected: 'zz' },
  { selected: [{}] },
  { zoom: 5 },
  { zoom: { x: [1] } },
  { zoom: { x: [2, 2] } },
  { zoom: { x: [0, Number.NaN] } },
  { zoom: { x: [0, 1.7e308] } },
  { at: -1 },
  { at: 'x' },
])('%j is no state', state => {
  expect(refused(() => checkState(state)).code).toBe('bad-state')
  expect(refused(() => new View(chart(data, line), state as never, frame)).code).toBe('bad-state')
})

test('cells that are no values are missing, and are told of', () => {
  const odd = [Object.create(null), {}, [[1]], deep(10_000), () => 1, Symbol('s'), new Map()]
  for (const cell of odd) {
    const texts = table({ a: ['x', cell], b: [1, cell] })
    expect(texts.row(1)).toEqual({ a: null, b: null })
    expect(texts.findings.map(finding => finding.path)).toEqual(['columns.a', 'columns.b'])
    expect(texts.findings[0].message).not.toContain('[object')
  }
  expect(table({ a: [['x', 'y'], { toString: (): string => 'told' }] }).rows()).toEqual([
    { a: 'x, y' },
    { a: 'told' },
  ])
})

test('numbers that no scale can hold are missing, and are told of, from text and from arrays', () => {
  for (const cells of [['1', '1e999'], [1, 1e308], Float64Array.of(1, -1e305), ['1', '-1e301']]) {
    const numbers = table({ a: cells })
    expect(numbers.row(1)).toEqual({ a: null })
    expect(numbers.findings[0].message).toContain('between')
  }
})

test('what is said can be printed anywhere', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), text => {
      const error = new DapploError('x', text, text, text)
      for (const said of [error.sentence, error.message, plainText(text)])
        expect(said).not.toMatch(
          /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/,
        )
    }),
  )
  expect(new DapploError('x', 'a\u001b]0;title\u0007').message).toBe('a\\u001b]0;title\\u0007')
})

test('what a console prints of an error has the remedy, and the code by which more is found', () => {
  let error: unknown
  try {
    chart(data, { draw: 'line', x: 'a', y: 'bb' as 'b' })
  } catch (caught) {
    error = caught
  }
  expect(error).toBeInstanceOf(DapploError)
  const { message, stack, sentence, logLine } = error as DapploError
  expect(message).toBe('There is no column "bb" in the table')
  expect(sentence).toBe(`${message} (at y). Did you mean "b"?`)
  expect(logLine).toBe(`${sentence} [unknown-column]`)
  expect(stack).toContain(logLine)
})
