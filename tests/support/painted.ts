// Scenes painted on a canvas of Node, to be looked at pixel by pixel.
import { createCanvas, ImageData } from '@napi-rs/canvas'
import { paintCanvas } from '../../packages/core/src/paint/canvas.ts'
import type { Context2D, Surroundings } from '../../packages/core/src/paint/context.ts'
import { paintDense } from '../../packages/core/src/paint/dense.ts'
import type { Scene } from '../../packages/core/src/scene/scene.ts'

export const bitmap: Surroundings['bitmap'] = (rgba, columns, rows) => {
  const canvas = createCanvas(columns, rows)
  canvas.getContext('2d').putImageData(new ImageData(rgba, columns, rows), 0, 0)
  return canvas
}

/** What painting has that is to be quick. */
export const quick: Surroundings = { bitmap, dense: paintDense }

/** The bytes of a scene's pixels. */
export function painted(scene: Scene, density: number, surroundings: Surroundings): Uint8ClampedArray {
  const canvas = createCanvas(scene.width * density, scene.height * density)
  const context = canvas.getContext('2d')
  paintCanvas(scene, context as unknown as Context2D, density, surroundings)
  return context.getImageData(0, 0, canvas.width, canvas.height).data as unknown as Uint8ClampedArray
}

/** How far two pictures are from each other: on average, and the share of bytes that are off by more than an edge is. */
export function difference(a: Uint8ClampedArray, b: Uint8ClampedArray): { mean: number; far: number } {
  let sum = 0
  let far = 0
  for (let i = 0; i < a.length; i++) {
    const off = Math.abs(a[i] - b[i])
    sum += off
    if (off > 48) far++
  }
  return { mean: sum / a.length, far: far / a.length }
}
