import { readFileSync } from 'node:fs'
import { chart, DapploError, table } from '@dapplo/core'
import { findingsOf, type PictureFrame, toCsv, toSvg } from '@dapplo/node'
import { expect, test } from 'vitest'
// @ts-expect-error A plain module, as the build uses it.
import { codesOf } from '../scripts/codes.mjs'
import { type Told, verdictOn } from './reader/compare.ts'
import { allPairs, pairsOf } from './reader/cover.ts'
import { type Chart, chartOf, FACTORS, TABLES } from './reader/factors.ts'
import { NOT_YET, optionsIn, optionsOf } from './reader/options.ts'
import { CYCLES, firstInstant, isoWeek, periodOf, placeOf, UNITS } from './reader/oracle/calendar.ts'
import { exactSum } from './reader/oracle/exact.ts'
import { fitted, fittedPolynomial } from './reader/oracle/fit.ts'
import { marksOf, meaningsOf, type Raw } from './reader/oracle/marks.ts'
import { percentile } from './reader/oracle/summary.ts'
import { CERTIFIED_FITS } from './support/certified.ts'

// The reader is read first: by published tables, and by cases that were worked out by hand.

test.each(CERTIFIED_FITS)('the reader fits $name as certified', ({ x, y, coefficients, rSquared }) => {
  const { coefficients: own, r2 } = fittedPolynomial(x, y, coefficients.length - 1)!
  own.forEach((found, i) => {
    expect(Math.abs(found / coefficients[i] - 1)).toBeLessThan(1e-12)
  })
  expect(Math.abs(r2 / rSquared - 1)).toBeLessThan(1e-12)
})

test('the reader fits curves through points that lie on them', () => {
  const on = (of: (x: number) => number) => [1, 2, 3, 5, 8].map(x => [x, of(x)] as const)
  expect(
    fitted(
      on(x => 3 * Math.exp(0.4 * x)),
      'exponential',
    )!.at(4),
  ).toBeCloseTo(3 * Math.exp(1.6), 9)
  expect(
    fitted(
      on(x => 2 * x ** 1.5),
      'power',
    )!.at(4),
  ).toBeCloseTo(16, 9)
  expect(
    fitted(
      on(x => 5 + 2 * Math.log(x)),
      'log',
    )!.at(4),
  ).toBeCloseTo(5 + 2 * Math.log(4), 9)
  expect(
    fitted(
      [
        [1, 2],
        [1, 3],
      ],
      'linear',
    ),
  ).toBeUndefined()
})

test('the reader loses nothing in sums', () => {
  expect(exactSum([1e16, 1, -1e16]).value).toBe(1)
  expect(exactSum(new Array(10).fill(0.1)).value).toBe(1)
  expect(exactSum([1e-300, 1e300, -1e300]).value).toBe(1e-300)
})

test('the reader’s percentiles lie between neighbours in proportion', () => {
  expect([0, 0.25, 0.5, 0.75, 1].map(share => percentile([1, 2, 4, 8], share))).toEqual([1, 1.75, 3, 5, 8])
})

/** Examples of ISO 8601 weeks, as the standard and its commentaries give them. */
test.each([
  ['2005-01-01', 2004, 53],
  ['2005-12-31', 2005, 52],
  ['2007-01-01', 2007, 1],
  ['2008-12-29', 2009, 1],
  ['2009-12-31', 2009, 53],
  ['2010-01-03', 2009, 53],
  ['2024-12-30', 2025, 1],
])('%s lies in week %j-%j', (day, year, week) => {
  expect(isoWeek(Date.parse(day))).toEqual([year, week])
})

/** Days on which clocks change, and how many hours these have: published by the zones' authorities. */
test.each([
  ['Europe/Berlin', '2024-03-31', 23],
  ['Europe/Berlin', '2024-10-27', 25],
  ['America/New_York', '2024-03-10', 23],
  ['America/St_Johns', '2024-11-03', 25],
  ['Australia/Lord_Howe', '2024-04-07', 24.5],
  ['Australia/Lord_Howe', '2024-10-06', 23.5],
  ['America/Sao_Paulo', '2018-11-04', 23],
  ['Africa/Cairo', '2024-04-26', 23],
  ['America/Havana', '2024-03-10', 23],
  ['Asia/Kathmandu', '2024-03-10', 24],
  ['Pacific/Auckland', '2024-09-29', 23],
  ['Pacific/Chatham', '2024-04-07', 25],
])('in %s the day %s has %j hours', (zone, day, hours) => {
  const { from, until } = periodOf(firstInstant(Date.parse(`${day}T12:00:00Z`), zone), 'day', zone)
  expect((until - from) / 3_600_000).toBe(hours)
})

test('the day that Apia left out belongs to neither of its neighbours', () => {
  const eve = periodOf(Date.parse('2011-12-29T22:00:00Z'), 'day', 'Pacific/Apia')
  expect(new Date(eve.until).toISOString()).toBe('2011-12-30T10:00:00.000Z')
  expect(periodOf(eve.until, 'day', 'Pacific/Apia').from).toBe(eve.until)
})

test('periods hold what falls in them, and follow each other', () => {
  const at = Date.UTC(2024, 10, 3, 5, 31, 7)
  for (const zone of ['UTC', 'America/New_York', 'Asia/Kathmandu'])
    for (const unit of UNITS) {
      const { from, until } = periodOf(at, unit, zone)
      expect(from <= at && at < until).toBe(true)
      expect(periodOf(until, unit, zone).from).toBe(until)
      expect(periodOf(until - 1, unit, zone)).toEqual({ from, until })
    }
  expect(CYCLES.map(cycle => placeOf(at, cycle, 'UTC'))).toEqual([5, 7, 3, 308, 11])
})

const crossings: Raw = {
  types: { day: 'time', route: 'text', boarded: 'number' },
  rows: [
    { day: Date.UTC(2024, 0, 5), route: 'Tern Point', boarded: 4 },
    { day: Date.UTC(2024, 0, 9), route: 'Tern Point', boarded: 6 },
    { day: Date.UTC(2024, 2, 1), route: 'Tern Point', boarded: 10 },
    { day: Date.UTC(2024, 0, 2), route: 'Kelp Narrows', boarded: 30 },
    { day: Date.UTC(2024, 1, 2), route: 'Kelp Narrows', boarded: null },
  ],
}
const worked = (bound: Record<string, unknown>, wishes: object = {}) =>
  marksOf(crossings, meaningsOf(bound, crossings.types)!, wishes)!.map(({ values }) => values.y)

test('what the reader works out was worked out by hand', () => {
  const months = { x: 'month of day', color: 'route' }
  expect(worked({ ...months, y: 'sum of boarded' })).toEqual([10, 10, 30, null, 0])
  expect(worked({ ...months, y: 'count' })).toEqual([2, 1, 1, 1, 0])
  expect(worked({ ...months, y: 'mean of boarded' })).toEqual([5, 10, 30, null, null])
  expect(worked({ ...months, y: 'sum so far of boarded' })).toEqual([10, 20, 30, 30, 10])
  expect(worked({ ...months, y: 'share of boarded' })).toEqual([0.25, 1, 0.75, null, null])
  expect(worked({ x: 'route', y: 'share of boarded' })).toEqual([0.4, 0.6])
  expect(worked({ x: 'route', y: 'rank of boarded' })).toEqual([2, 1])
  expect(worked({ x: 'route', y: 'sum of boarded' }, { top: 1 })).toEqual([30])
  expect(worked({ x: 'route', y: 'sum of boarded' }, { top: 1, rest: true })).toEqual([20, 30])
  expect(worked({ x: 'route', y: 'count' }, { where: { boarded: { from: 6 } } })).toEqual([2, 1])
  expect(worked({ x: 'route', y: 'count', link: 'day' })).toEqual([3, 2])
})

// Then it reads.

interface Drawn extends Told {
  refused?: string
}

async function drawn({ table: name, description, frame }: Chart): Promise<Drawn> {
  const raw = TABLES[name]
  const rows = raw.rows.map(row => ({ ...row, day: new Date(row.day as number) }))
  const columns = Object.fromEntries(Object.entries(raw.types).map(([column, type]) => [column, { type }]))
  try {
    const made = chart(table(rows, { name: 'sailings', columns }), description as never)
    const of = frame as PictureFrame
    return { svg: await toSvg(made, of), csv: toCsv(made, of), findings: findingsOf(made, of) }
  } catch (error) {
    if (!(error instanceof DapploError)) throw error
    return { svg: '', csv: '', findings: [], refused: error.message }
  }
}

const sizes = Object.fromEntries(Object.entries(FACTORS).map(([name, levels]) => [name, levels.length]))

test('each option of the published schema has levels, or stands among those that are not read yet', () => {
  const options = optionsOf(JSON.parse(readFileSync('docs/chart.schema.json', 'utf8')))
  const read = new Set(Object.values(FACTORS).flatMap(levels => levels.flatMap(level => optionsIn(level))))
  expect([...options].filter(option => !read.has(option)).sort()).toEqual([...NOT_YET].sort())
})

test('pictures of every pair of options say what the rows say', async () => {
  const faults: string[] = []
  const read = new Map<string, number>()
  const codes = new Set<string>()
  const seen = new Set<string>()
  const wanted = new Set<string>()
  for (const choice of allPairs(sizes)) {
    for (const pair of pairsOf(choice)) wanted.add(pair)
    const one = chartOf(choice)
    const told = await drawn(one)
    if (told.refused !== undefined) continue
    const verdict = verdictOn(one, TABLES[one.table], told)
    for (const { code } of told.findings) codes.add(code)
    for (const what of verdict.read) read.set(what, (read.get(what) ?? 0) + 1)
    for (const pair of pairsOf(choice)) seen.add(pair)
    faults.push(...verdict.faults.map(fault => `${fault}: ${JSON.stringify(one)}`))
  }
  expect(faults).toEqual([])
  // Whatever is told can be looked up.
  const explained = new Set(codesOf('.').map(({ code }: { code: string }) => code))
  expect([...codes].filter(code => !explained.has(code))).toEqual([])
  // Were most of them refused or unread, nothing would have been looked at.
  expect(seen.size / wanted.size).toBeGreaterThan(0.99)
  expect(read.get('the data table')).toBeGreaterThan(120)
  expect(read.get('ends of bars')).toBeGreaterThan(3)
  expect(read.get('piles')).toBeGreaterThan(3)
  expect(read.get('ends of lines')).toBeGreaterThan(15)
  expect(read.get('ends of scatters')).toBeGreaterThan(4)
})

const PLAIN: Chart = {
  table: 'plain',
  frame: { width: 640, height: 400 },
  description: { draw: 'bar', x: 'route', y: 'sum of passengers' },
}

test.each<[string, Partial<Chart['description']>, (told: Told) => Told, RegExp]>([
  [
    'a bar that ends elsewhere',
    {},
    told => ({
      ...told,
      svg: told.svg
        .replace(/(<path d="M[\d.]+ [\d.]+V)([\d.]+)/, (_, a, b) => `${a}${Number(b) + 9}`)
        .replace(/A2 2 0 0 1 ([\d.]+) ([\d.]+)H/, (_, x, y) => `A2 2 0 0 1 ${x} ${Number(y) + 9}H`),
    }),
    /ends at/,
  ],
  ['a number on a tick', {}, told => ({ ...told, svg: told.svg.replace(/>1,000</, '>1,100<') }), /uneven/],
  ['two ticks alike', {}, told => ({ ...told, svg: told.svg.replace(/>2,000</, '>3,000<') }), /say the same/],
  [
    'a name that nobody has',
    {},
    told => ({ ...told, svg: told.svg.replace(/>Tern Point</, '>Whale Firth<') }),
    /no mark is called so/,
  ],
  [
    'a value in the table',
    {},
    told => ({ ...told, csv: told.csv.replace(/(\d)\r?\n/, (_, d) => `${(Number(d) + 1) % 10}\n`) }),
    /data table lacks/,
  ],
  [
    'a row that is lost',
    {},
    told => ({ ...told, csv: told.csv.trim().replace(/\r?\n[^\n]+$/, '') }),
    /data table/,
  ],
  [
    'what is spoken',
    { draw: 'line' },
    told => ({ ...told, svg: told.svg.replace(/Values from [\d,]+/, 'Values from 3') }),
    /it is said/,
  ],
  [
    'rows without a place that nobody tells of',
    { where: {} },
    told => ({ ...told, findings: [] }),
    /nothing is said/,
  ],
])('the reader notices %s', async (_, more, spoil, fault) => {
  const one = {
    ...PLAIN,
    table: 'where' in more ? 'gaps' : 'plain',
    description: { ...PLAIN.description, ...more },
  }
  const told = await drawn(one)
  expect(verdictOn(one, TABLES[one.table], told).faults).toEqual([])
  expect(verdictOn(one, TABLES[one.table], spoil(told)).faults.join()).toMatch(fault)
})
