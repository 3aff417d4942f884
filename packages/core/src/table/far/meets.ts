import { isInside } from '../cells/outline.ts'
import type { FarTest, FarValue } from './model.ts'

/** What is known of a mark: the values that all of its rows have. */
export type Known = ReadonlyMap<string, string | number | null>

export const valueKey = (value: FarValue): string => JSON.stringify(value)

/** What the tests that a mark's rows meet say of them. */
export function knownOf(tests: readonly (FarTest | undefined)[]): Known {
  const known = new Map<string, string | number | null>()
  const learn = (test: FarTest | undefined): void => {
    if (test?.is === 'all') for (const one of test.tests) learn(one)
    else if (test?.is === 'missing') known.set(valueKey(test.value), null)
    else if (test?.is === 'among' && test.values.length === 1) known.set(valueKey(test.value), test.values[0])
  }
  for (const test of tests) learn(test)
  return known
}

const sets = new WeakMap<object, ReadonlySet<string | number>>()

/** Whether rows of which so much is known meet a test; undefined where that is not enough to tell. */
export function meets(known: Known, test: FarTest): boolean | undefined {
  switch (test.is) {
    case 'all':
    case 'any': {
      const settles = test.is === 'any'
      let open = false
      for (const one of test.tests) {
        const met = meets(known, one)
        if (met === settles) return settles
        if (met === undefined) open = true
      }
      return open ? undefined : !settles
    }
    case 'not': {
      const met = meets(known, test.test)
      return met === undefined ? undefined : !met
    }
    case 'within': {
      const [x, y] = [known.get(valueKey(test.x)), known.get(valueKey(test.y))]
      return typeof x === 'number' && typeof y === 'number' ? isInside(test.outline, x, y) : undefined
    }
    default: {
      const own = known.get(valueKey(test.value))
      if (own === undefined) return undefined
      if (test.is === 'missing') return own === null
      if (own === null) return false
      if (test.is === 'among') return among(test.values).has(own)
      const { from, until, last } = test
      return (
        (from === undefined || own >= from) &&
        (until === undefined || own < until) &&
        (last === undefined || own <= last)
      )
    }
  }
}

function among(values: readonly (string | number)[]): ReadonlySet<string | number> {
  const set = sets.get(values) ?? new Set(values)
  sets.set(values, set)
  return set
}

/** Any of these tests; those that differ in the values of one thing alone are one test. */
export function anyOf(tests: readonly FarTest[]): FarTest {
  const shapes = new Map<string, { test: FarTest & { is: 'among' }; values: Set<string | number> }>()
  const others: FarTest[] = []
  for (const test of tests) {
    if (test.is !== 'among') {
      others.push(test)
      continue
    }
    const name = JSON.stringify(test.value)
    const known = shapes.get(name)
    if (known) for (const value of test.values) known.values.add(value)
    else shapes.set(name, { test, values: new Set(test.values) })
  }
  const among = [...shapes.values()].map(({ test, values }) => ({ ...test, values: [...values] }))
  const all: FarTest[] = [...among, ...others]
  return all.length === 1 ? all[0] : { is: 'any', tests: all }
}
