import type { BoundDrawing } from '../bind/model.ts'
import type { Pane } from '../pane/model.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { isMeasure } from '../table/phrase/meaning.ts'

type Corner = readonly [x: number, y: number]

/** Where marks stand at plain values of rows that are elsewhere, what is selected is told in these values. */
function plainValues({ drawing, x, y }: BoundDrawing): { x: unknown; y: unknown } | undefined {
  if ([...drawing.roles.values()].some(isMeasure)) return undefined
  const plain = ({ meaning, cells, far }: RoleValues) =>
    meaning.is === 'column' && cells.type !== 'text' ? far : undefined
  const found = { x: plain(x), y: plain(y) }
  return found.x !== undefined && found.y !== undefined ? found : undefined
}

/** A row that stands for all rows in a box; undefined where it cannot be told in values. */
export function farBox(pane: Pane, bound: BoundDrawing, ends: readonly Corner[]): number | undefined {
  const values = plainValues(bound)
  const corners = values && inUnits(pane, bound, ends)
  if (!corners) return undefined
  const between = (value: unknown, a: number, b: number) => ({
    is: 'between',
    value,
    from: Math.min(a, b),
    last: Math.max(a, b),
  })
  const [[x1, y1], [x2, y2]] = corners
  return bound.drawing.table.rowStandingFor?.({
    is: 'all',
    tests: [between(values.x, x1, x2), between(values.y, y1, y2)],
  })
}

/** The same for an outline. */
export function farOutline(pane: Pane, bound: BoundDrawing, outline: readonly Corner[]): number | undefined {
  const values = plainValues(bound)
  const corners = values && inUnits(pane, bound, outline)
  if (!corners) return undefined
  return bound.drawing.table.rowStandingFor?.({ is: 'within', ...values, outline: corners })
}

/** Corners in the units of the scales. */
function inUnits(
  { scales }: Pane,
  { xScale, yScale }: BoundDrawing,
  corners: readonly Corner[],
): [number, number][] | undefined {
  const [x, y] = [scales.get(xScale), scales.get(yScale)]
  return x && y && corners.map(([a, b]) => [x.invert(a), y.invert(b)])
}
