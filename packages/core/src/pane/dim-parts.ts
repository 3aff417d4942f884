import type { BoundDrawing } from '../bind/model.ts'
import { isLying } from '../drawing/is-lying.ts'
import type { Rects, Wedges } from '../scene/scene.ts'
import { numbersOf } from '../table/cells/cells.ts'
import { answeredElsewhere } from '../table/group/question.ts'
import type { RowTest } from '../table/live/selection.ts'

/** What share of a shape's value its selected rows make up, 0 to 1; undefined where parts of the value are no parts of the shape, as of a mean. */
export function selectedShares(
  bound: BoundDrawing,
  { rows, x }: Rects | Wedges,
  test: RowTest,
): Float64Array | undefined {
  const added = addedBy(bound)
  if (!rows || !added) return undefined
  const { values } = added
  const { mask } = test
  const out = new Float64Array(x.length)
  // Every frame of a drag comes through here with all rows: plain loops, and no call for a row where there is a mask.
  for (let shape = 0; shape < out.length; shape++) {
    const own = rows(shape)
    const { length } = own
    let [all, selected] = [0, 0]
    for (let i = 0; i < length; i++) {
      const row = own[i]
      const value = values ? values[row] : 1
      if (value !== value) continue
      all += value
      if (mask ? mask[row] > 0 : test(row)) selected += value
    }
    out[shape] = all > 0 ? selected / all : 0
  }
  return out
}

/** What rows add to their shapes: their values to a sum, one each to a count; undefined where shapes do not add rows up. */
function addedBy({
  drawing,
  marks,
  x,
  y,
  shade,
}: BoundDrawing): { values: Float64Array | undefined } | undefined {
  // Of rows that are elsewhere a shape is selected or not: what part of it is, is not known here.
  if (answeredElsewhere(drawing.table)) return undefined
  const { meaning } = drawing.kind.cells ? (shade ?? y) : drawing.kind.parts || !isLying(marks) ? y : x
  const shares = meaning.is === 'window' && meaning.how === 'share'
  const adds = meaning.is === 'summary' && (meaning.how === 'count' || meaning.how === 'sum')
  if (!adds && !shares) return undefined
  if (meaning.column === undefined) return { values: undefined }
  const column = drawing.table.column(meaning.column)
  // What falls below zero makes no part of a bar.
  if (!column || column.type === 'text' || column.extent.min < 0) return undefined
  return { values: numbersOf(column.cells) }
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
