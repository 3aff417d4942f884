import { type PositionScale, positionScale } from '../scale/scale.ts'
import type { Batch, Box, Pixels, Rects, Wedges } from '../scene/scene.ts'

/** Whether a language is written from right to left. */
export const runsLeft = (locale: string): boolean => /^(ar|ckb|dv|fa|he|ks|ps|sd|ug|ur|yi)\b/i.test(locale)

/** Shapes and words the other way round within a box: what began at its left edge begins at its right. Letters stay as they are. */
export function mirrored(batches: readonly Batch[], box: Box): Batch[] {
  const sum = box.x * 2 + box.width
  const flip = (x: Float32Array, width?: Float32Array) =>
    x.map((value, i) => sum - value - (width ? width[i] : 0))
  return batches.map((batch): Batch => {
    switch (batch.kind) {
      case 'texts': {
        const anchor = batch.anchor === 'start' ? 'end' : batch.anchor === 'end' ? 'start' : 'middle'
        return { ...batch, anchor, turn: -batch.turn, x: flip(batch.x) }
      }
      case 'rects':
        return { ...batch, x: flip(batch.x, batch.width), ...otherSides(batch) }
      case 'images':
        return { ...batch, x: flip(batch.x, batch.width) }
      case 'pixels':
        return { ...batch, x: flip(batch.x, batch.width), rgba: otherWay(batch) }
      case 'segments':
        return { ...batch, x1: flip(batch.x1), x2: flip(batch.x2) }
      case 'wedges':
        return { ...batch, x: flip(batch.x), ...otherTurn(batch) }
      default:
        return { ...batch, x: flip(batch.x) }
    }
  })
}

/** A box at the other side of another. */
export const mirroredBox = (inner: Box, box: Box): Box => ({
  ...inner,
  x: box.x * 2 + box.width - inner.x - inner.width,
})

/** A scale along x that runs the other way. */
export function mirroredScale(scale: PositionScale, box: Box): PositionScale {
  const sum = box.x * 2 + box.width
  return positionScale({ ...scale, range: [sum - scale.range[0], sum - scale.range[1]] })
}

/** Ends that were rounded at the right are at the left, and what grew to the right grows to the left. */
function otherSides({ round, pileAlong, toward }: Rects): Partial<Rects> {
  return {
    round: round.map(side => (side === 2 ? 4 : side === 4 ? 2 : side)),
    ...(pileAlong === 'x' && toward ? { toward: toward.map(sign => -sign) } : {}),
  }
}

/** Slices against the clock. */
const otherTurn = ({ from, to }: Wedges): Pick<Wedges, 'from' | 'to'> => ({
  from: to.map(angle => Math.PI * 2 - angle),
  to: from.map(angle => Math.PI * 2 - angle),
})

function otherWay({ rgba, columns }: Pixels): Pixels['rgba'] {
  const source = new Uint32Array(rgba.buffer, rgba.byteOffset, rgba.length / 4)
  const out = new Uint32Array(source.length)
  for (let row = 0; row < out.length; row += columns)
    for (let column = 0; column < columns; column++) out[row + column] = source[row + columns - 1 - column]
  return new Uint8ClampedArray(out.buffer)
}
