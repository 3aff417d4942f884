import { pickCells } from '../table/cells/cells.ts'
import type { Crowd, RoleValues, Shaped } from '../table/group/shape.ts'
import type { ScaledPart } from './model.ts'
import { unbound } from './scaling.ts'

/** The marks of the series that are not hidden; undefined where none is. */
export function shownMarks(
  seriesOf: Uint16Array | undefined,
  hides: readonly boolean[],
  length: number,
): Int32Array | undefined {
  if (!hides.includes(true)) return undefined
  const shown: number[] = []
  for (let mark = 0; mark < length; mark++) if (!hides[seriesOf ? seriesOf[mark] : 0]) shown.push(mark)
  return Int32Array.from(shown)
}

function onlyPlaces(crowd: Crowd, shown: Int32Array): Crowd {
  const { rows, spreads } = crowd
  return {
    ...crowd,
    rows: Float64Array.from(shown, mark => rows[mark]),
    ...(spreads ? { spreads: Float64Array.from(shown, mark => spreads[mark]) } : {}),
  }
}

/** A drawing with only these marks, so that every value of a mark is found under its own number. */
export function onlyShown(part: ScaledPart, shown: Int32Array): ScaledPart {
  const { shaped, x, y } = part
  const pick = (values: RoleValues): RoleValues =>
    values === unbound
      ? values
      : {
          ...values,
          cells: pickCells(values.cells, shown),
          ends: values.ends && Float64Array.from(shown, mark => values.ends![mark]),
        }
  const only: Shaped = {
    ...shaped,
    length: shown.length,
    roles: new Map([...shaped.roles].map(([role, values]) => [role, pick(values)])),
    rowsOf: mark => shaped.rowsOf(shown[mark]),
    runs: undefined,
    ...(shaped.crowd ? { crowd: onlyPlaces(shaped.crowd, shown) } : {}),
    rowOf: shaped.rowOf && (mark => shaped.rowOf!(shown[mark])),
    keyOf: mark => shaped.keyOf(shown[mark]),
  }
  return { ...part, shaped: only, x: pick(x), y: pick(y) }
}
