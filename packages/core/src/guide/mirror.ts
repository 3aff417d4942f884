import type { Batch, Box } from '../scene/scene.ts'

/** Whether a language is written from right to left. */
export const runsLeft = (locale: string): boolean => /^(ar|ckb|dv|fa|he|ks|ps|sd|ug|ur|yi)\b/i.test(locale)

/** Guides the other way round within a box: what began at its left edge begins at its right. Letters stay as they are. */
export function mirrored(batches: readonly Batch[], box: Box): Batch[] {
  const sum = box.x * 2 + box.width
  const flip = (x: Float32Array, width?: Float32Array) =>
    x.map((value, i) => sum - value - (width ? width[i] : 0))
  return batches.map(batch => {
    switch (batch.kind) {
      case 'texts': {
        const anchor = batch.anchor === 'start' ? 'end' : batch.anchor === 'end' ? 'start' : 'middle'
        return { ...batch, anchor, x: flip(batch.x) }
      }
      case 'rects':
      case 'images':
        return { ...batch, x: flip(batch.x, batch.width) }
      case 'segments':
        return { ...batch, x1: flip(batch.x1), x2: flip(batch.x2) }
      case 'discs':
      case 'lines':
        return { ...batch, x: flip(batch.x) }
      default:
        return batch
    }
  })
}
