import type { Discs, Rects, Segments, Texts } from '../scene/scene.ts'

/** Only these shapes of a batch. */
export function picked<B extends Rects | Discs | Texts | Segments>(batch: B, which: number[]): B {
  const out: Record<string, unknown> = { ...batch, keys: which.map(i => batch.keys[i]), rows: undefined }
  for (const [name, value] of Object.entries(batch)) {
    if (
      value instanceof Float32Array ||
      value instanceof Float64Array ||
      value instanceof Uint8Array ||
      value instanceof Int8Array ||
      value instanceof Uint16Array
    ) {
      const array = value
      out[name] = new (array.constructor as Float32ArrayConstructor)(which.map(i => array[i]))
    }
  }
  if (batch.kind === 'texts') {
    out.texts = which.map(i => batch.texts[i])
    out.figures = batch.figures && which.map(i => batch.figures![i])
  }
  return out as unknown as B
}
