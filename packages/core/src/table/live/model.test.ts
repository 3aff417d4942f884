import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { table } from '../open/read.ts'
import { keepRecent } from './keep.ts'
import type { Table } from './table.ts'

/** A live table does what a plain map from keys to rows would do, and tells of it so that others can follow. */

interface Boarding {
  id: string
  at?: Date | null
  n?: number | null
}
const id = fc.constantFrom('a', 'b', 'c', 'd', 'e', '__proto__', '1')
const n = fc.option(fc.integer({ min: -50, max: 50 }), { nil: null })
const at = fc.option(
  fc.integer({ min: 0, max: 1e9 }).map(second => new Date(second * 1000)),
  { nil: null },
)
// Columns may be left out: what is there already then stays.
const row = fc.record({ id, n, at }, { requiredKeys: ['id'] })
const whole = fc.record({ id, n, at })
const step = fc.oneof(
  fc.record({ do: fc.constant('append' as const), rows: fc.array(whole, { maxLength: 4 }) }),
  fc.record({ do: fc.constant('put' as const), rows: fc.array(row, { maxLength: 5 }) }),
  fc.record({ do: fc.constant('remove' as const), keys: fc.array(id, { maxLength: 3 }) }),
  fc.record({ do: fc.constant('removeWhere' as const), below: fc.integer({ min: -50, max: 0 }) }),
  fc.record({
    do: fc.constant('replace' as const),
    rows: fc.uniqueArray(whole, { maxLength: 6, selector: one => one.id }),
  }),
  fc.record({ do: fc.constant('keep' as const), count: fc.integer({ min: 0, max: 6 }), by: fc.boolean() }),
  fc.record({ do: fc.constant('tell' as const) }),
)
type Step = typeof step extends fc.Arbitrary<infer S> ? S : never
const full = (one: Boarding) => ({ id: one.id, n: one.n ?? null, at: one.at ?? null })

function apply(
  live: Table<any>,
  model: Map<string, ReturnType<typeof full>>,
  arrivals: ReadonlyMap<string, number>,
  act: Step,
): void {
  switch (act.do) {
    case 'append': {
      const ids = act.rows.map(one => one.id)
      const twice = new Set(ids).size < ids.length || ids.some(one => model.has(one))
      if (twice) return expect(() => live.append(act.rows)).toThrow(/have the key/) as never
      live.append(act.rows)
      for (const one of act.rows) model.set(one.id, full(one))
      return
    }
    case 'put':
      live.put(act.rows)
      for (const one of act.rows) {
        const before = model.get(one.id)
        model.set(one.id, before ? { ...before, ...one } : full(one))
      }
      return
    case 'remove':
      live.remove(act.keys)
      for (const key of act.keys) model.delete(key)
      return
    case 'keep': {
      keepRecent(live, act.count, act.by ? 'at' : undefined)
      // The oldest go, the earlier of two as old; by arrival, whatever place a row has now.
      const all = [...model].map(([key, one], i) => ({
        key,
        age: act.by ? (one.at?.getTime() ?? Number.POSITIVE_INFINITY) : arrivals.get(key)!,
        i,
      }))
      all.sort((a, b) => (a.age === b.age ? a.i - b.i : a.age - b.age))
      for (const { key } of all.slice(0, Math.max(0, all.length - act.count))) model.delete(key)
      return
    }
    case 'removeWhere':
      live.removeWhere(one => one.n !== null && one.n < act.below)
      for (const [key, one] of model) if (one.n !== null && one.n < act.below) model.delete(key)
      return
    case 'replace':
      live.replace(act.rows)
      model.clear()
      for (const one of act.rows) model.set(one.id, full(one))
  }
}

test('whatever is done to it, it holds the rows that a map would', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 15 }), async steps => {
      const live = table<any>([{ id: 'a', n: 1, at: new Date(0) }], { key: 'id' })
      const model = new Map([['a', full({ id: 'a', n: 1, at: new Date(0) })]])
      const arrivals = new Map([['a', 0]])
      let count = 1
      // Someone who only hears of changes, and looks rows up by their serial numbers.
      const heard = new Map<number, object>([[live.serials[0], live.row(0)]])
      live.watch(change => {
        for (const serial of change.removed) expect(heard.delete(serial)).toBe(true)
        for (const serial of change.added) expect(heard.has(serial)).toBe(false)
        for (const serial of [...change.added, ...change.changed])
          heard.set(serial, live.row(live.rowOfSerial(serial)!))
      })
      for (const act of steps) {
        if (act.do === 'tell') await Promise.resolve()
        else {
          apply(live, model, arrivals, act)
          for (const key of [...arrivals.keys()]) if (!model.has(key)) arrivals.delete(key)
          for (const key of model.keys()) if (!arrivals.has(key)) arrivals.set(key, count++)
        }
        expect(live.rows()).toEqual([...model.values()])
        expect(live.length).toBe(model.size)
        expect(new Set(live.serials).size).toBe(live.length)
      }
      await Promise.resolve()
      expect([...heard.keys()].sort((a, b) => a - b)).toEqual([...live.serials].sort((a, b) => a - b))
      for (const [i, serial] of live.serials.entries()) expect(heard.get(serial)).toEqual(live.row(i))
    }),
    // What goes wrong takes three steps in a certain order.
    { numRuns: runs(600) },
  )
})

test('a key that is there twice leaves the rows as they were', () => {
  const live = table([{ id: 'a', n: 1 }], { key: 'id' })
  const twice = [
    { id: 'b', n: 2 },
    { id: 'b', n: 3 },
  ]
  for (const act of [() => live.replace(twice), () => live.append(twice)]) {
    expect(act).toThrow(expect.objectContaining({ code: 'duplicate-key' }))
    expect(live.rows()).toEqual([{ id: 'a', n: 1 }])
  }
  expect(live.put(twice).rows()).toEqual([
    { id: 'a', n: 1 },
    { id: 'b', n: 3 },
  ])
})

test('a key is what was read, not how it was written', () => {
  const live = table(
    [
      { at: '2024-03-01T08:00:00Z', pier: 'North', n: 1 },
      { at: '2024-03-01T09:00:00Z', pier: 'South', n: 2 },
    ],
    { key: ['at', 'pier'] },
  )
  const again = (at: unknown, pier: string, n: number) => live.put({ at, pier, n } as never)
  again('2024-03-01T08:00:00.000Z', 'North', 10)
  again('2024-03-01T10:00:00+01:00', 'South', 20)
  again(new Date('2024-03-01T09:00Z'), 'South', 30)
  expect(live.rows().map(row => row.n)).toEqual([10, 30])
  live.remove([['2024-03-01T09:00+00:00', 'South']] as never)
  expect(live.rows().map(row => row.n)).toEqual([10])
  live.remove([['2024-03-01T09:00+00:00', 'Nowhere']] as never)
  expect(live.column('pier')!.cells).toMatchObject({ words: ['North', 'South'] })
})

test('a hundred thousand new rows are put at once', () => {
  const live = table([{ id: 0, n: 0 }], { key: 'id' })
  const many = Array.from({ length: 100_000 }, (_, i) => ({ id: i, n: i }))
  live.put(many)
  expect(live.length).toBe(100_000)
  expect(live.row(99_999)).toEqual({ id: 99_999, n: 99_999 })
})
