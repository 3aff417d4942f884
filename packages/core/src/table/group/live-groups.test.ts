import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { extentOf } from '../cells/extent.ts'
import { extremes } from '../cells/pyramid.ts'
import { followersOf } from '../live/followers.ts'
import type { Table } from '../live/table.ts'
import { table } from '../open/read.ts'
import { meaningKey } from '../phrase/meaning.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { following } from './live-groups.ts'
import { askColumns, type Question } from './question.ts'
import type { Shaped } from './shape.ts'

interface Sailing {
  id: number
  departed: Date | null
  route: string | null
  load: number | null
}

const DAY = 86_400_000
const START = Date.UTC(2024, 0, 15)
const PHRASES = [
  ['month of departed', 'sum of load'],
  ['week of departed', 'mean of load', 'route'],
  ['hour of departed', 'count'],
  ['route', 'median of load'],
  ['weekday of departed', 'min of load'],
  ['route', 'max of load', 'month of departed'],
  ['load', 'count'],
  ['route', 'first of load'],
  ['route', 'last of load'],
  ['bins of load', 'count'],
  ['bins of load', 'mean of load', 'route'],
  ['route', 'distinct load'],
  ['month of departed', 'sum so far of load', 'route'],
  ['route', 'share of load', 'quarter of departed'],
] as const

const columns = { departed: { type: 'time' }, load: { type: 'number' }, route: { type: 'text' } } as const
const sailing = (id: number): fc.Arbitrary<Sailing> =>
  fc.record({
    id: fc.constant(id),
    departed: fc.option(
      fc.integer({ min: -40, max: 400 }).map(days => new Date(START + days * DAY * 0.77)),
      { freq: 12 },
    ),
    route: fc.option(fc.constantFrom('Tern Point', 'Gannet Bay', 'North Sound', 'Outer Skerries'), {
      freq: 12,
    }),
    load: fc.option(fc.oneof(fc.integer({ min: -3, max: 9 }), fc.constantFrom(0.1, 0.2, 0.7, 1e15, -1e15)), {
      freq: 12,
    }),
  })
const change = fc.oneof(
  { weight: 4, arbitrary: fc.record({ put: fc.nat(60).chain(sailing) }) },
  { weight: 3, arbitrary: fc.record({ come: fc.nat(1e9).chain(sailing) }) },
  { weight: 2, arbitrary: fc.record({ drop: fc.integer({ min: 1, max: 4 }) }) },
  { weight: 1, arbitrary: fc.record({ remove: fc.nat(60) }) },
)

/** What a shaped question says, by the words of its marks. */
function said(shaped: Shaped) {
  const values = [...shaped.roles].map(([role, { cells, ends }]) => [
    role,
    cells.type === 'text'
      ? Array.from(cells.codes.subarray(0, shaped.length), code => cells.words[code] ?? null)
      : Array.from(cells.values.subarray(0, shaped.length)),
    ends && Array.from(ends),
  ])
  const marks = Array.from({ length: shaped.length }, (_, mark) => mark)
  return { values, keys: marks.map(shaped.keyOf), rows: marks.map(mark => Array.from(shaped.rowsOf(mark))) }
}

type Options = Pick<Question, 'top' | 'follow'>
const asked = (
  of: Table,
  [x, y, color]: readonly string[],
  conditions = false,
  options: Options = { follow: following },
) => {
  const roles = new Map([
    ['x', readPhrase(x, of, 'x')],
    ['y', readPhrase(y, of, 'y')],
    ...(color ? [['color', readPhrase(color, of, 'color')] as const] : []),
  ])
  const where = conditions ? { load: { from: 0 }, route: { not: 'Gannet Bay' } } : undefined
  return said(askColumns(of, { roles, order: 'x', where, ...options }))
}
const columnsOf = (of: Table) =>
  ['departed', 'load'].map(name => {
    const column = of.column(name)!
    const cells = column.cells as { values: Float64Array }
    const half = [Math.floor(cells.values.length / 3), cells.values.length]
    return { extent: column.extent, ends: { ...extremes(column.pyramid, half[0], half[1]) } }
  })

test('groups that follow the rows are those of a fresh table, after any history', () => {
  fc.assert(
    fc.property(
      fc.array(fc.nat(60).chain(sailing), { minLength: 1, maxLength: 30 }),
      fc.array(fc.array(change, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 6 }),
      fc.constantFrom('UTC', 'Europe/Berlin'),
      fc.boolean(),
      (first, changes, timeZone, inOrder) => {
        const unique = [...new Map(first.map(row => [row.id, row])).values()]
        const options = { key: 'id', columns, timeZone } as const
        // Rows in the order of time stand in runs.
        const known = unique.filter(row => row.departed).sort((a, b) => +a.departed! - +b.departed!)
        const live = table<Sailing>(inOrder && known.length > 0 ? known : unique, options)
        const check = () => {
          const fresh = table<Sailing>(live.rows(), options)
          for (const phrases of PHRASES)
            for (const some of [false, true])
              expect(asked(live, phrases, some), phrases.join()).toEqual(asked(fresh, phrases, some))
          expect(columnsOf(live)).toEqual(columnsOf(fresh))
          for (const name of ['departed', 'load'])
            expect(live.column(name)!.extent).toEqual(extentOf(live.column(name)!.cells))
        }
        check()
        for (const step of changes) {
          for (const one of step) {
            if ('put' in one) live.put([one.put])
            else if ('come' in one) live.put([{ ...one.come, id: one.come.id + 100 }])
            else if ('drop' in one) live.dropFirst(one.drop)
            else live.remove(one.remove)
            if ('remove' in one) live.removeWhere(row => row.id % 17 === one.remove % 17)
          }
          if (live.length > 0) check()
        }
      },
    ),
    { numRuns: runs(25) },
  )
})

test('rows that move in memory while others come stay in their groups', () => {
  const row = (id: number): Sailing => ({
    id,
    departed: new Date(START + id * DAY),
    route: ['Tern Point', 'Gannet Bay', 'North Sound'][id % 3],
    load: id,
  })
  const roles = ['month of departed', 'sum of load', 'route']
  const live = table<Sailing>([row(0)], { key: 'id', columns })
  live.append(Array.from({ length: 63 }, (_, i) => row(i + 1))).dropFirst(40)
  askColumns(live, {
    roles: new Map(['x', 'y', 'color'].map((role, i) => [role, readPhrase(roles[i], live, role)])),
    order: 'x',
    follow: following,
  })
  // The room of those that left is taken again.
  live.append(Array.from({ length: 30 }, (_, i) => row(i + 64)))
  live.remove(50)
  expect(asked(live, roles)).toEqual(asked(table<Sailing>(live.rows(), { key: 'id', columns }), roles))
})

test('the best categories, and the rest of them, are those of all rows, after any history', () => {
  const whole = fc
    .nat(60)
    .chain(sailing)
    .map(row => ({ ...row, load: row.load === null ? null : (Math.round(row.load) % 50) + 0 }))
  const told = fc.record({
    role: fc.constantFrom('x', 'color'),
    count: fc.integer({ min: 0, max: 4 }),
    rest: fc.constantFrom(undefined, true, 'Others'),
    by: fc.constantFrom(undefined, 'mean of load', 'distinct load'),
  })
  const phrases = fc.constantFrom<string[]>(
    ['route', 'sum of load'],
    ['route', 'count', 'month of departed'],
    ['route', 'mean of load', 'weekday of departed'],
    ['month of departed', 'max of load', 'route'],
    ['month of departed', 'last of load', 'route'],
    ['quarter of departed', 'share of load', 'route'],
    ['route', 'median of load'],
    ['route', 'rank of load', 'year of departed'],
  )
  fc.assert(
    fc.property(
      fc.array(whole, { minLength: 1, maxLength: 30 }),
      fc.array(fc.array(whole, { maxLength: 3 }), { maxLength: 5 }),
      phrases,
      told,
      fc.boolean(),
      (first, changes, phrases, { by, ...told }, some) => {
        const unique = [...new Map(first.map(row => [row.id, row])).values()]
        const live = table<Sailing>(unique, { key: 'id', columns })
        const role =
          phrases[told.role === 'x' ? 0 : 2] === 'route' ? told.role : told.role === 'x' ? 'color' : 'x'
        const top = { ...told, role, by: by === undefined ? undefined : readPhrase(by, live, 'by') }
        const check = () =>
          expect(asked(live, phrases, some, { top, follow: following })).toEqual(
            asked(live, phrases, some, { top }),
          )
        check()
        for (const [i, rows] of changes.entries()) {
          live.put(rows)
          if (i % 2 > 0) live.remove([rows[0]?.id ?? 0, 3, 4])
          if (live.length > 0) check()
        }
      },
    ),
    { numRuns: runs(400) },
  )
})

test('a changed row costs its groups: nothing passes over all rows, and what nobody asks for any more is let go', () => {
  const rows = Array.from({ length: 5000 }, (_, id) => ({
    id,
    departed: new Date(START + id * DAY * 0.1),
    route: ['Tern Point', 'Gannet Bay'][id % 2],
    load: id % 7,
  }))
  const live = table<Sailing>(rows, { key: 'id', columns })
  asked(live, ['route', 'sum of load'])
  const name = `groups ${meaningKey(readPhrase('route', live, 'x'))}`
  const follower = followersOf(live).find<any>(name)!
  expect(follower).toBeDefined()
  // The first change counts the groups.
  live.put([{ id: 1, departed: null, route: 'Gannet Bay', load: 50 }])
  let passes = 0
  const { ofRow } = follower
  Object.defineProperty(follower, 'ofRow', {
    get: () =>
      new Proxy(ofRow, {
        get(target, name) {
          if (name === 'all') passes++
          const found = Reflect.get(target, name, target)
          return typeof found === 'function' ? found.bind(target) : found
        },
      }),
  })
  for (let i = 0; i < 40; i++) {
    live.put([{ id: i * 9, departed: null, route: 'Gannet Bay', load: 100 + i }])
    live.append([{ id: 10_000 + i, departed: null, route: 'Tern Point', load: 1 }])
    const shaped = askColumns(live, {
      follow: following,
      roles: new Map([
        ['x', readPhrase('route', live, 'x')],
        ['y', readPhrase('sum of load', live, 'y')],
      ]),
    })
    expect(shaped.length).toBe(2)
  }
  expect(passes).toBe(0)
  const change = (times: number) => {
    for (let i = 0; i < times; i++) live.put([{ id: i, departed: null, route: 'Tern Point', load: 7000 + i }])
  }
  // A feed may bring a thousand rows before anybody looks.
  change(1000)
  expect(followersOf(live).find(name)).toBe(follower)
  change(1001)
  expect(followersOf(live).find(name)).toBeUndefined()
})

test('what is put as it is already is no change', () => {
  const live = table<Sailing>([{ id: 1, departed: new Date(START), route: 'Tern Point', load: null }], {
    key: 'id',
    columns,
  })
  const before = live.version.value
  live.put([{ id: 1, departed: new Date(START), route: 'Tern Point', load: null }])
  live.put([])
  live.append([])
  expect(live.version.value).toBe(before)
  live.put([{ id: 1, departed: new Date(START), route: 'Tern Point', load: 0 }])
  expect(live.version.value).toBe(before + 1)
})
