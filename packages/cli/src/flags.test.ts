import { readFileSync } from 'node:fs'
import { Command } from 'commander'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { frameOf, withChartFlags, withFrameFlags } from './flags.ts'
import { columnOptions, descriptionOf, FIELDS } from './input.ts'

const parsed = (args: string[]) => {
  const command = withFrameFlags(withChartFlags(new Command())).exitOverride()
  return command.parse(args, { from: 'user' }).opts()
}
/** A description as a person would write it in flags. */
const flagsOf = (description: Record<string, unknown>) =>
  Object.entries(description).flatMap(([field, value]) => {
    if (value === false) return [`--no-${field}`]
    if (value === true) return [`--${field}`]
    return [`--${field}=${typeof value === 'object' ? JSON.stringify(value) : value}`]
  })
const words = fc.oneof(
  fc.string({ minLength: 1, maxLength: 20 }),
  fc.constantFrom('{count} sailings', '[Draft] Report', '{', '"quoted"', '--x', 'true', '12'),
)
const phrase = fc.oneof(
  fc.constantFrom('route', 'sum of passengers', 'month of departed'),
  fc.constant({ sum: 'passengers', label: 'People' }),
)

describe('flags', () => {
  test('are there for every field of a description, but for what only makes sense beside other charts', () => {
    const text = readFileSync(new URL('../../../docs/chart.schema.json', import.meta.url), 'utf8')
    const fields = Object.keys(JSON.parse(text).anyOf[0].properties)
    const others = fields.filter(field => !(FIELDS as readonly string[]).includes(field))
    expect(others).toEqual(
      ['tables', 'house', 'table', 'series', 'detailOf'].filter(field => others.includes(field)),
    )
    const { options } = withChartFlags(new Command())
    const flags = new Set(options.map(option => option.attributeName()))
    expect(FIELDS.filter(field => !flags.has(field))).toEqual([])
  })

  test('say what a description says, field by field', () => {
    const description = fc.record(
      {
        draw: fc.constantFrom<unknown>('line', 'bar', ['bar', { as: 'line', y: 'mean of delay' }]),
        x: phrase,
        y: phrase,
        color: phrase,
        label: fc.oneof<fc.Arbitrary<unknown>[]>(phrase, fc.boolean(), fc.constant('{count} sailings')),
        points: fc.constant(true),
        legend: fc.constantFrom<unknown>(false, 'right'),
        top: fc.integer({ min: 1, max: 30 }),
        hollow: fc.constantFrom(0, 0.5),
        title: words,
        subtitle: words,
        caption: words,
        stamp: fc.oneof<fc.Arbitrary<unknown>[]>(words, fc.constant(false), fc.constant({ note: '{count}' })),
        rest: fc.constantFrom<unknown>(true, 'All others', '{rest}'),
        tooltip: fc.constantFrom<unknown>(false, '{count} sailings', ['wind', 'delay']),
        motion: fc.constantFrom<unknown>(false, { duration: 200 }),
        where: fc.constant({ route: ['Tern Point'] }),
        fit: fc.constantFrom<unknown>('linear', { degree: 2 }),
        band: fc.constantFrom<unknown>(true, 0.9),
        scales: fc.constant({ y: { include: 0 } }),
      },
      { requiredKeys: ['draw'] },
    )
    fc.assert(
      fc.property(description, wish => {
        expect(descriptionOf(parsed(flagsOf(wish)))).toEqual(wish)
      }),
    )
  })

  test('are there for every field, each with words about it', () => {
    const flags = withChartFlags(new Command()).options
    for (const field of FIELDS) {
      const found = flags.find(flag => flag.attributeName() === field)
      expect(found, field).toBeDefined()
      if (!['title', 'subtitle', 'caption'].includes(field)) expect(found!.description).not.toBe('')
    }
  })

  test('that are no JSON where JSON belongs are told by name', () => {
    for (const field of ['where', 'style', 'scales', 'axes', 'motion', 'x'])
      expect(() => descriptionOf(parsed([`--${field}={"half": `]))).toThrow(
        expect.objectContaining({ code: 'bad-json', path: `--${field}` }),
      )
  })
})

test.each([
  ['--hole', '--hollow'],
  ['--period', '--stamp'],
  ['--summary', '--stamp'],
])('%s is answered by its new name', (old, now) => {
  expect(() => descriptionOf(parsed([old, '0.5']))).toThrow(
    expect.objectContaining({ code: 'renamed', message: `${old} is called ${now}` }),
  )
})

describe('frames', () => {
  test('are as large, dense and themed as told', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 9999 }),
        fc.integer({ min: 10, max: 9999 }),
        fc.constantFrom(1, 1.5, 2, 3),
        (width, height, density) => {
          const flags = parsed([
            `--frame=${width}x${height}`,
            `--density=${density}`,
            '--theme=night',
            '--locale=de-at',
          ])
          expect(frameOf(flags, 'data/sailings.csv')).toMatchObject({
            width,
            height,
            density,
            theme: 'night',
            locale: 'de-AT',
            folder: 'data',
          })
        },
      ),
    )
  })

  test.each([
    '--frame=10',
    '--frame=axb',
    '--frame=5x5',
    '--frame=-1x20',
    '--density=0',
    '--density=nine',
    '--density=99',
    '--theme=dusk',
    '--locale=x',
  ])('%s is refused by name', flag => {
    const path = flag.slice(0, flag.indexOf('='))
    expect(() => frameOf(parsed([flag]), '-')).toThrow(expect.objectContaining({ code: 'bad-flag', path }))
  })
})

test('column types name columns of any name', () => {
  expect(columnOptions(['year=text', 'a=b=number'])).toEqual({
    year: { type: 'text' },
    'a=b': { type: 'number' },
  })
  expect(columnOptions(['departed=day first'])).toEqual({ departed: { dates: 'day first' } })
  expect(columnOptions([])).toBeUndefined()
  for (const odd of ['year', 'year=date', '=text'])
    expect(() => columnOptions([odd])).toThrow(expect.objectContaining({ code: 'bad-flag', path: '--type' }))
})
