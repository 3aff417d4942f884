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

/** What tells whether rows of which so much is known meet a test; undefined where that is not enough to tell. */
export function tester(test: FarTest): (known: Known) => boolean | undefined {
  switch (test.is) {
    case 'all':
    case 'any': {
      const settles = test.is === 'any'
      const testers = test.tests.map(tester)
      if (testers.length === 1) return testers[0]
      return known => {
        let open = false
        for (const own of testers) {
          const met = own(known)
          if (met === settles) return settles
          if (met === undefined) open = true
        }
        return open ? undefined : !settles
      }
    }
    case 'not': {
      const own = tester(test.test)
      return known => {
        const met = own(known)
        return met === undefined ? undefined : !met
      }
    }
    case 'within': {
      const keys = [valueKey(test.x), valueKey(test.y)]
      return known => {
        const [x, y] = [known.get(keys[0]), known.get(keys[1])]
        return typeof x === 'number' && typeof y === 'number' ? isInside(test.outline, x, y) : undefined
      }
    }
    default: {
      const key = valueKey(test.value)
      const values = test.is === 'among' ? new Set(test.values) : undefined
      const { from, until, last } = test.is === 'between' ? test : {}
      return known => {
        const own = known.get(key)
        if (own === undefined) return undefined
        if (test.is === 'missing') return own === null
        if (own === null) return false
        if (values) return values.has(own)
        return (
          (from === undefined || own >= from) &&
          (until === undefined || own < until) &&
          (last === undefined || own <= last)
        )
      }
    }
  }
}

/** What is known of marks in numbers, by their rows: looked up very often while a person drags. */
export class MarkNumbers {
  private readonly marks: readonly { known: Known }[]
  private readonly values = new Map<string, { values: Float64Array; count: number }>()

  constructor(marks: readonly { known: Known }[]) {
    this.marks = marks
  }

  /** By row, NaN where the value is missing, endless where it is not known; undefined where some are texts. */
  of(key: string): Float64Array | undefined {
    const { marks } = this
    const before = this.values.get(key)
    // Each step of a drag adds a mark: there is room for more than there are.
    const values =
      before && before.values.length >= marks.length
        ? before.values
        : new Float64Array(marks.length + (marks.length >> 2) + 64)
    if (before && values !== before.values) values.set(before.values)
    for (let row = before?.count ?? 0; row < marks.length; row++) {
      const own = marks[row].known.get(key)
      if (typeof own === 'string') return undefined
      values[row] = own === undefined ? Number.POSITIVE_INFINITY : (own ?? Number.NaN)
    }
    this.values.set(key, { values, count: marks.length })
    return values
  }
}

/** A number that lies between two others. */
interface Stretch {
  key: string
  from: number
  last: number
}

/** The stretches that a test is of; undefined where it is of anything else. */
function stretchesIn(test: FarTest): Stretch[] | undefined {
  if (test.is === 'all') {
    const all = test.tests.map(stretchesIn)
    return all.some(own => own === undefined) ? undefined : all.flatMap(own => own!)
  }
  if (test.is !== 'between' || typeof test.from !== 'number' || typeof test.last !== 'number')
    return undefined
  return [{ key: valueKey(test.value), from: test.from, last: test.last }]
}

/**
 * The rows that may meet a test of stretches of numbers alone, in one loop over plain numbers, as in every frame of a drag;
 * undefined for other tests. `numbersOf`: by the key of a value, what is known of it by row, endless where nothing is. Rows
 * that come later are told as well.
 */
export function boxMask(
  test: FarTest,
  numbersOf: (key: string) => Float64Array | undefined,
  rows: () => number,
): (() => Uint8Array) | undefined {
  const stretches = stretchesIn(test)
  if (!stretches?.length || stretches.some(({ key }) => !numbersOf(key))) return undefined
  let mask = new Uint8Array(0)
  return () => {
    const known = mask.length
    if (known < rows()) {
      const more = new Uint8Array(rows()).fill(1, known)
      more.set(mask)
      for (const { key, from, last } of stretches) {
        const numbers = numbersOf(key)
        if (numbers) keepWithin(more, numbers, known, from, last)
      }
      mask = more
    }
    return mask
  }
}

function keepWithin(
  mask: Uint8Array,
  numbers: Float64Array,
  first: number,
  from: number,
  last: number,
): void {
  for (let row = first; row < mask.length; row++) {
    const own = numbers[row]
    if (!((own >= from && own <= last) || own === Number.POSITIVE_INFINITY)) mask[row] = 0
  }
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
