import { paintDense } from '@dapplo/core/internal'
import { createCanvas, ImageData } from '@napi-rs/canvas'

/** Puts colour values on a canvas, as the painters in Node do. */
export function bitmap(rgba, columns, rows) {
  const picture = createCanvas(columns, rows)
  picture.getContext('2d').putImageData(new ImageData(rgba, columns, rows), 0, 0)
  return picture
}

/** What painting has in Node. */
export const surroundings = { bitmap, dense: paintDense }
