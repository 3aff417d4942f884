import { type Areas, type Batch, type Lines, type Scene, shapeCount } from '../scene/scene.ts'

/** Progress of each of several shapes, where they do not all move at once. */
export type Progress = (shape: number, count: number) => number

/** A batch at a moment: `eased` progress moves shapes, `time` (0 to 1, not eased) fades them; `each`: the progress of single shapes. */
export type BatchAt = (eased: number, time: number, each?: Progress) => Batch | undefined

/** What a glide of a batch may know of the two scenes. */
export interface GlideContext {
  from: Scene
  to: Scene
  /** Whose words texts say on the way: those of the picture that is left, or of the one that comes. Numbers are on their way in both. */
  says: 'before' | 'after'
}

/** The batch with its own transparency multiplied. */
export function faded(batch: Batch, alpha: number): Batch {
  const count = shapeCount(batch)
  const all = new Float32Array(count)
  for (let i = 0; i < count; i++) all[i] = (batch.alpha ? batch.alpha[i] : 1) * alpha
  return { ...batch, alpha: all }
}

/** Values on the way from one array to another. */
export function mixed(
  from: Float32Array,
  to: Float32Array,
  t: number,
  out = new Float32Array(to.length),
  each?: Progress,
): Float32Array {
  if (each) {
    for (let i = 0; i < out.length; i++) out[i] = from[i] + (to[i] - from[i]) * each(i, out.length)
    return out
  }
  for (let i = 0; i < out.length; i++) out[i] = from[i] + (to[i] - from[i]) * t
  return out
}

/** Several batches of one id and kind as one: shapes in mid-motion and shapes on their way out are all on screen. */
export function joined(batches: readonly Batch[]): Batch {
  const [first] = batches
  if (batches.length === 1) return first
  const out: Record<string, unknown> = { ...first }
  const counts = batches.map(shapeCount)
  const list = batches as readonly unknown[] as readonly Record<string, unknown>[]
  // Colours and transparency are joined below, each in its own way.
  const { alpha: _, ...own } = first
  for (const [name, value] of Object.entries(own)) {
    if (
      value instanceof Float32Array ||
      value instanceof Float64Array ||
      value instanceof Uint8Array ||
      value instanceof Int8Array
    ) {
      // What only some have, such as the forms of points, the others have as usual.
      const usual = value instanceof Uint8Array ? 0 : Number.NaN
      const blank = (count: number) => new (value.constructor as typeof Float32Array)(count).fill(usual)
      out[name] = joinArrays(list.map((batch, i) => (batch[name] as Float32Array) ?? blank(counts[i])))
    } else if (Array.isArray(value) && name !== 'colors' && !(name === 'dash' && first.kind === 'segments')) {
      out[name] = list.flatMap((batch, i) =>
        Array.from((batch[name] as ArrayLike<unknown> | undefined) ?? { length: counts[i] }),
      )
    }
  }
  out.keys = batches.flatMap(batch => Array.from(batch.keys))
  const colors = batches.flatMap(batch => [...batch.colors])
  let offset = 0
  out.color = joinArrays(
    batches.map(batch => {
      const shifted = batch.color.map(index => index + offset)
      offset += batch.colors.length
      return shifted
    }),
  )
  out.colors = colors
  out.alpha = joinArrays(batches.map((batch, i) => batch.alpha ?? new Float32Array(counts[i]).fill(1)))
  out.rows = undefined
  if (first.kind === 'lines' || first.kind === 'areas') {
    const starts: number[] = [0]
    for (const lines of batches as readonly (Lines | Areas)[]) {
      const base = starts[starts.length - 1]
      for (let i = 1; i < lines.starts.length; i++) starts.push(base + lines.starts[i])
    }
    out.starts = Uint32Array.from(starts)
  }
  return out as unknown as Batch
}

function joinArrays<A extends Float32Array | Uint16Array>(arrays: A[]): A {
  const out = new (arrays[0].constructor as new (length: number) => A)(
    arrays.reduce((sum, array) => sum + array.length, 0),
  )
  let at = 0
  for (const array of arrays) {
    out.set(array, at)
    at += array.length
  }
  return out
}
