import type { Canvas } from '@napi-rs/canvas'
import type { FilterType } from '@napi-rs/image'
import { loadPart } from './parts.ts'

/** The filter is chosen for each row. The package declares its numbers, but does not bring them along. */
const ADAPTIVE = 5 as FilterType

/** The pixels of a canvas as a PNG, written on another thread, in less than half the time that the canvas takes, and smaller. */
export function encodePng(canvas: Canvas): Promise<Uint8Array> {
  const { Transformer } = loadPart('@napi-rs/image') as typeof import('@napi-rs/image')
  const { width, height } = canvas
  const { data } = canvas.getContext('2d').getImageData(0, 0, width, height)
  return Transformer.fromRgbaPixels(data, width, height).png({ filterType: ADAPTIVE })
}
