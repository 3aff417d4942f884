import type { BoundDrawing } from '../bind/model.ts'
import { isLying } from '../drawing/is-lying.ts'
import type { Rects, Wedges } from '../scene/scene.ts'
import type { RowTest } from '../table/live/selection.ts'

/** What share of a shape's value its selected rows make up, 0 to 1; undefined where parts of the value are no parts of the shape, as of a mean. */
export function selectedShares(
  bound: BoundDrawing,
  { rows, x }: Rects | Wedges,
  test: RowTest,
): Float64Array | undefined {
  const weight = weightOf(bound)
  if (!rows || !weight) return undefined
  const out = new Float64Array(x.length)
  const { mask } = test
  const isSelected = mask ? (row: number) => mask[row] > 0 : test
  for (let shape = 0; shape < out.length; shape++) {
    let [all, selected] = [0, 0]
    const own = rows(shape)
    for (let i = 0; i < own.length; i++) {
      const value = weight(own[i])
      // What falls below zero makes no part of a bar.
      if (value < 0) return undefined
      if (!(value > 0)) continue
      all += value
      if (isSelected(own[i])) selected += value
    }
    out[shape] = all > 0 ? selected / all : 0
  }
  return out
}

/** What a row adds to its shape: one to a count, its value to a sum; undefined where shapes do not add rows up. */
function weightOf({ drawing, marks, x, y, shade }: BoundDrawing): ((row: number) => number) | undefined {
  const { meaning } = drawing.kind.cells ? (shade ?? y) : drawing.kind.parts || !isLying(marks) ? y : x
  const shares = meaning.is === 'window' && meaning.how === 'share'
  const counts = meaning.is === 'summary' && meaning.how === 'count'
  const sums = meaning.is === 'summary' && meaning.how === 'sum'
  if (!counts && !sums && !shares) return undefined
  const cells = meaning.column === undefined ? undefined : drawing.table.column(meaning.column)?.cells
  if (meaning.column === undefined) return () => 1
  return cells && cells.type !== 'text' ? row => cells.values[row] : undefined
}

/** The parts of bars and cells that are selected, each from where its shape begins. */
export function partsOfRects(batch: Rects, shares: Float64Array, lying: boolean): Rects {
  const [x, y, width, height] = [batch.x.slice(), batch.y.slice(), batch.width.slice(), batch.height.slice()]
  for (let i = 0; i < x.length; i++) {
    const share = shares[i]
    const side = batch.round[i] || (lying ? 2 : 1)
    if (side === 1 || side === 3) height[i] *= share
    else width[i] *= share
    if (side === 1) y[i] += batch.height[i] - height[i]
    if (side === 4) x[i] += batch.width[i] - width[i]
  }
  return {
    ...batch,
    id: `${batch.id}/selected`,
    rows: undefined,
    x,
    y,
    width,
    height,
    round: new Uint8Array(x.length),
  }
}

/** The parts of slices that are selected, each from where its slice begins. */
export const partsOfWedges = (batch: Wedges, shares: Float64Array): Wedges => ({
  ...batch,
  id: `${batch.id}/selected`,
  rows: undefined,
  to: batch.to.map((to, i) => batch.from[i] + (to - batch.from[i]) * shares[i]),
})
