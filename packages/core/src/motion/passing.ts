import type { Batch, Texts } from '../scene/scene.ts'

/** More things than these pass each other too quickly to be told apart anyway. */
const MOST = 300

/** A pair of shapes that pass each other: which one comes to stand higher, or further left, than it was, and which gives way. */
export type Pass = readonly [gains: number, yields: number]

/** The pairs whose order from above, or from the left, is another at the end. NaN: not there. */
export function passesBetween(
  start: { x: ArrayLike<number>; y: ArrayLike<number> },
  end: { x: ArrayLike<number>; y: ArrayLike<number> },
): Pass[] {
  const count = Math.min(start.x.length, end.x.length)
  if (count > MOST) return []
  const passes: Pass[] = []
  const moves = Uint8Array.from({ length: count }, (_, i) =>
    start.x[i] === end.x[i] && start.y[i] === end.y[i] ? 0 : 1,
  )
  // What stands still, as the cells of a grid, passes nothing.
  if (!moves.includes(1)) return passes
  for (let a = 0; a < count; a++)
    for (let b = a + 1; b < count; b++)
      for (const axis of ['y', 'x'] as const) {
        const [before, after] = [start[axis][a] - start[axis][b], end[axis][a] - end[axis][b]]
        if (!(before * after < 0)) continue
        passes.push(after < 0 ? [a, b] : [b, a])
        break
      }
  return passes
}

/** Texts that pass each other: where they would be printed over each other the one that falls behind is unseen. */
export function givingWay(batch: Texts, passes: readonly Pass[]): Texts {
  if (passes.length === 0) return batch
  let alpha: Float32Array | undefined
  for (const [gains, yields] of passes) {
    const overlap = overlapBetween(batch, gains, batch, yields)
    if (overlap <= 0) continue
    alpha ??= ownAlpha(batch)
    alpha[yields] *= seenUnder(overlap, batch)
  }
  return alpha ? { ...batch, alpha } : batch
}

/** Labels of several batches on their way: what comes later in the picture gives way to what was there before it. */
export function partedLabels(batches: readonly Batch[]): Batch[] {
  const labels = batches.filter((batch): batch is Texts => batch.kind === 'texts' && batch.of !== undefined)
  const count = labels.reduce((sum, { texts }) => sum + texts.length, 0)
  if (labels.length < 2 || count > MOST) return [...batches]
  const faded = new Map<Batch, Float32Array>()
  labels.forEach((batch, b) => {
    for (const earlier of labels.slice(0, b)) {
      // Those of one batch of shapes are one set of words that changes places.
      if (earlier.of === batch.of) continue
      for (let i = 0; i < batch.texts.length; i++)
        for (let k = 0; k < earlier.texts.length; k++) {
          if (earlier.alpha && earlier.alpha[k] < 0.1) continue
          const overlap = overlapBetween(earlier, k, batch, i)
          if (overlap <= 0) continue
          const alpha = faded.get(batch) ?? ownAlpha(batch)
          alpha[i] *= seenUnder(overlap, batch)
          faded.set(batch, alpha)
        }
    }
  })
  return batches.map(batch => {
    const alpha = faded.get(batch)
    return alpha ? { ...batch, alpha } : batch
  })
}

const ownAlpha = ({ alpha, texts }: Texts): Float32Array =>
  alpha?.slice() ?? new Float32Array(texts.length).fill(1)

/** How much is seen of a text under another: it is gone before the letters meet, and is back as soon as they have parted. */
const seenUnder = (overlap: number, { size }: Texts): number => Math.max(0, 1 - overlap / (size * 0.35))

const overlapBetween = (one: Texts, i: number, other: Texts, k: number): number =>
  Math.min(
    overlapOf(spanAcross(one, i), spanAcross(other, k)),
    overlapOf(spanDown(one, i), spanDown(other, k)),
  )

type Span = readonly [number, number]

const overlapOf = (a: Span, b: Span): number => Math.min(a[1], b[1]) - Math.max(a[0], b[0])

/** How wide a letter is, as a share of its size, on the whole. */
const LETTER = 0.56

/** The share of a text that is left of its place. */
const LEFT_OF = { start: 0, middle: 0.5, end: 1 }

/** From the left to the right edge of a text, when it is placed by its own edge or by another. */
export function spanAcross({ x, texts, size, anchor }: Texts, i: number, by = anchor): Span {
  const width = texts[i].length * size * LETTER
  const left = x[i] - LEFT_OF[by] * width
  return [left, left + width]
}

const spanDown = ({ y, size }: Texts, i: number): Span => [y[i] - size, y[i] + size * 0.25]
