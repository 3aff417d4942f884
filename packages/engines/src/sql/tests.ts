import type { FarTest } from '@dapplo/core/far'
import type { Expressions } from './values.ts'

/** The condition of a statement. What is missing meets no comparison: it is then not true, and its opposite is. */
export function condition(test: FarTest, by: Expressions): string {
  switch (test.is) {
    case 'all':
      return test.tests.length === 0
        ? '1 = 1'
        : `(${test.tests.map(one => condition(one, by)).join(' AND ')})`
    case 'any':
      return test.tests.length === 0 ? '1 = 0' : `(${test.tests.map(one => condition(one, by)).join(' OR ')})`
    case 'not':
      return `NOT coalesce(${condition(test.test, by)}, ${by.dialect.no})`
    case 'missing':
      return `(${by.of(test.value)} IS NULL)`
    case 'among': {
      const type = by.typeOf(test.value)
      const list = test.values
        .filter(value => (typeof value === 'number') === (type === 'number'))
        .map(value => by.constant(value))
      return list.length === 0 ? '1 = 0' : `(${by.compared(test.value)} IN (${list.join(', ')}))`
    }
    case 'between': {
      const { value, from, until, last } = test
      const text = by.typeOf(value) === 'text'
      const stored = text ? undefined : by.storedNumber(value)
      // With both ends, what is no finite number is out without being looked for.
      const ends = [
        [stored && from === undefined ? -LARGEST : from, '>='],
        [until, '<'],
        [stored && until === undefined && last === undefined ? LARGEST : last, '<='],
      ] as const
      const parts = ends.flatMap(([end, sign]) => {
        if (end === undefined) return []
        const time = sign === '<=' ? undefined : stores(test, by, end)
        if (time) return [`${time.column} ${sign} ${time.value}`]
        const own = stored ?? (text ? by.dialect.textOrder(by.of(value)) : by.of(value))
        return [`${own} ${sign} ${by.constant(end)}`]
      })
      return parts.length > 0 ? `(${parts.join(' AND ')})` : `(${by.of(value)} IS NOT NULL)`
    }
    case 'within':
      return within(test, by)
  }
}

/** No scale can hold what is larger. */
const LARGEST = 1e300

/** A time of a column as it is stored, to which engines keep indexes and extremes. */
function stores(test: FarTest & { is: 'between' }, by: Expressions, end: string | number) {
  const { value } = test
  if (value.is !== 'column' || value.clock || typeof end !== 'number') return undefined
  const column = by.column(value.column)
  if (column.type !== 'time') return undefined
  return by.dialect.storedTime?.(by.stored(column), column.given, end, by.writer)
}

/** Crossings of the outline to the right of the point: inside where they are odd. */
function within({ x, y, outline }: FarTest & { is: 'within' }, by: Expressions): string {
  const [px, py] = [x, y].map(value => by.dialect.asNumber(by.of(value)))
  const crossings = outline.map(([x1, y1], i) => {
    const [x2, y2] = outline[(i + 1) % outline.length]
    const number = (value: number) => by.writer.number(value)
    if (y1 === y2) return '0'
    const [low, high] = y1 < y2 ? [y1, y2] : [y2, y1]
    const slope = (x2 - x1) / (y2 - y1)
    return `CASE WHEN ${py} >= ${number(low)} AND ${py} < ${number(high)} AND ${px} < ${number(x1)} + (${py} - ${number(y1)}) * ${number(slope)} THEN 1 ELSE 0 END`
  })
  const count = crossings.length > 0 ? crossings.join(' + ') : '0'
  return `(${px} IS NOT NULL AND ${py} IS NOT NULL AND (${count}) % 2 = 1)`
}
