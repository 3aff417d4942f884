import type { Positions } from '../describe/model.ts'
import { DapploError } from '../finding/error.ts'
import type { TableColumn } from '../table/cells/column.ts'
import { type Extent, extentOf } from '../table/cells/extent.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { isMeasure } from '../table/phrase/meaning.ts'
import type { ScaleInput } from './model.ts'

/** Values of a role in the terms of its scale. */
export function positions(values: RoleValues, input: Pick<ScaleInput, 'name' | 'type' | 'words'>): Positions {
  const { cells, ends, column, spans } = values
  const measured = isMeasure(values.meaning)
  let at: Float64Array
  let from: Float64Array | undefined
  let to: Float64Array | undefined
  let sorted = false
  /** The column whose cells these are, untouched. */
  let whole: TableColumn | undefined
  if (input.type === 'text') {
    const words = cells.type === 'text' ? cells.words : undefined
    const index = new Map(input.words.map((word, i) => [word, i]))
    const codes = cells.type === 'text' ? cells.codes : undefined
    // Numbers can be drawn as names too: a year is no quantity.
    const place = words ? words.map(word => index.get(word) ?? Number.NaN) : undefined
    const numbers = cells.type === 'text' ? undefined : cells.values
    const length = codes?.length ?? numbers!.length
    at = new Float64Array(length)
    for (let i = 0; i < length; i++)
      at[i] = codes
        ? codes[i] < 0
          ? Number.NaN
          : place![codes[i]]
        : (index.get(String(numbers![i])) ?? Number.NaN)
    from = at.map(i => i - 0.5)
    to = at.map(i => i + 0.5)
  } else if (cells.type === 'text') {
    throw new DapploError(
      'wrong-type',
      `The scale "${input.name}" cannot hold the texts of "${column?.name}"`,
      `scales.${input.name}`,
      'Set its kind to "category".',
    )
  } else if (ends) {
    from = cells.values
    to = ends
    at = from.map((start, i) => (start + to![i]) / 2)
    // A missing end leaves an extent that does not exist.
  } else {
    at = cells.values
    if (column?.isAll(at)) whole = column
    sorted = whole?.extent.sorted ?? false
  }
  const known = whole
  return {
    at,
    pyramid: known && (() => known.pyramid),
    from,
    to,
    sorted: sorted || (from !== undefined && extentOf({ type: 'number', values: at }).sorted),
    measured,
    timed: input.type === 'time',
    spans,
  }
}

/** Least and greatest of positions; for a whole column this is known already. */
export function extentOfPositions(values: RoleValues, positions: Positions): { min: number; max: number } {
  const { from, to, spans } = positions
  if (spans && from && to)
    return {
      min: extentOf({ type: 'number', values: from }).min,
      max: extentOf({ type: 'number', values: to }).max,
    }
  if (values.reach) return { min: values.reach[0], max: values.reach[1] }
  return knownExtent(values, positions) ?? extentOf({ type: 'number', values: positions.at })
}

/** Whether some marks have no position; for a whole column this is known already. */
export const lacksSome = (values: RoleValues, positions: Positions): boolean =>
  !positions.sorted && knownExtent(values, positions)?.missing !== 0 && positions.at.some(Number.isNaN)

/** What a column knows of its values, where the positions are the whole of it. */
function knownExtent({ column }: RoleValues, { at }: Positions): Extent | undefined {
  return column?.isAll(at) ? column.extent : undefined
}

/** Positions of a role that nothing is bound to. */
export function unboundPositions(length: number): Positions {
  return { at: new Float64Array(length).fill(Number.NaN), sorted: false, measured: false, unbound: true }
}
