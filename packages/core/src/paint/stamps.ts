import type { Box, Discs } from '../scene/scene.ts'
import { isTranslucent, type Rgb, readColor } from '../theme/contrast.ts'
import type { Bitmap, Context2D } from './context.ts'

/** From so many discs on they are stamped: a path of its own for each takes most of a frame. */
const MANY = 1500
/** Stamps stand on quarters of a device pixel. */
const PHASES = 4

interface Sheet {
  rgba: Uint8ClampedArray
  columns: number
  rows: number
  /** Where its corner stands, in device pixels. */
  left: number
  top: number
}

/** Sheets of batches that are painted again as they are, as when something changes above them. */
const sheets = new WeakMap<Discs, { density: number; sheet: Sheet | undefined }>()

/**
 * Paints very many plain discs as one picture, into which each is stamped pixel by pixel; returns whether it did. What
 * comes later lies over what came before, as with paths.
 */
export function stampDiscs(
  batch: Discs,
  box: Box,
  context: Context2D,
  density: number,
  bitmap: Bitmap | undefined,
): boolean {
  if (!bitmap || batch.x.length < MANY || batch.ring || batch.form) return false
  const inks = batch.colors.map(readColor)
  if (inks.some(ink => ink === undefined) || batch.colors.some(isTranslucent)) return false
  let known = sheets.get(batch)
  if (known?.density !== density) {
    known = {
      density,
      sheet: sheetOf(
        batch,
        inks as Rgb[],
        Math.ceil((box.x + box.width) * density),
        Math.ceil((box.y + box.height) * density),
        density,
      ),
    }
    sheets.set(batch, known)
  }
  const { sheet } = known
  if (!sheet) return true
  const { rgba, columns, rows, left, top } = sheet
  context.globalAlpha = 1
  context.drawImage(
    bitmap(rgba, columns, rows),
    left / density,
    top / density,
    columns / density,
    rows / density,
  )
  return true
}

function sheetOf(
  { x, y, radius, color, alpha }: Discs,
  inks: readonly Rgb[],
  width: number,
  height: number,
  density: number,
): Sheet | undefined {
  const { left, top, right, bottom } = boundsOf(x, y, radius, width, height, density)
  const columns = right - left
  const rows = bottom - top
  if (!(columns > 0 && rows > 0)) return undefined
  const single = inks.length === 1
  // Colours times their opacity, as they add up, in fractions, since hundreds of faint ones lie on each other; of one
  // colour the opacity alone.
  const sum = new Float32Array(columns * rows * (single ? 1 : 4))
  const stamps = new Map<number, Stamp>()
  for (let i = 0; i < x.length; i++) {
    const reach = radius[i] * density
    if (!(x[i] === x[i] && y[i] === y[i] && reach > 0)) continue
    const centreX = Math.round((x[i] * density - left) * PHASES)
    const centreY = Math.round((y[i] * density - top) * PHASES)
    const column = Math.floor(centreX / PHASES)
    const row = Math.floor(centreY / PHASES)
    const around = Math.ceil(reach) + 1
    // The sheet has room around the scene for all that reaches into it.
    if (column < around || row < around || column + around >= columns || row + around >= rows) continue
    const [shiftX, shiftY] = [centreX - column * PHASES, centreY - row * PHASES]
    const name = (Math.round(reach * 64) * PHASES + shiftX) * PHASES + shiftY
    let stamp = stamps.get(name)
    if (!stamp) {
      stamp = stampOf(reach, shiftX / PHASES, shiftY / PHASES, columns)
      stamps.set(name, stamp)
    }
    const at = row * columns + column
    const own = alpha ? alpha[i] : 1
    if (single) layOpacity(sum, at, stamp, own)
    else layInk(sum, at, stamp, own, inks[color[i]])
  }
  return { rgba: single ? bytesOfOne(sum, inks[0]) : bytesOf(sum), columns, rows, left, top }
}

/** The pixels that a disc covers, counted from that of its middle, and how much of each. */
interface Stamp {
  pixels: Int32Array
  cover: Float32Array
}

function stampOf(reach: number, shiftX: number, shiftY: number, columns: number): Stamp {
  const around = Math.ceil(reach) + 1
  const pixels: number[] = []
  const cover: number[] = []
  for (let row = -around; row <= around; row++)
    for (let column = -around; column <= around; column++) {
      const far = Math.hypot(column + 0.5 - shiftX, row + 0.5 - shiftY)
      const edge = Math.min(1, Math.max(0, reach + 0.5 - far))
      if (edge === 0) continue
      pixels.push(row * columns + column)
      // A disc smaller than a pixel covers no more of it than it is large.
      cover.push(reach < 0.5 ? edge * Math.PI * reach * reach : edge)
    }
  return { pixels: Int32Array.from(pixels), cover: Float32Array.from(cover) }
}

function layOpacity(sum: Float32Array, at: number, { pixels, cover }: Stamp, alpha: number): void {
  for (let i = 0; i < pixels.length; i++) {
    const pixel = at + pixels[i]
    const own = cover[i] * alpha
    sum[pixel] += own * (1 - sum[pixel])
  }
}

function layInk(
  sum: Float32Array,
  at: number,
  { pixels, cover }: Stamp,
  alpha: number,
  [r, g, b]: Rgb,
): void {
  for (let i = 0; i < pixels.length; i++) {
    const pixel = (at + pixels[i]) * 4
    const own = cover[i] * alpha
    const rest = 1 - own
    sum[pixel] = r * own + sum[pixel] * rest
    sum[pixel + 1] = g * own + sum[pixel + 1] * rest
    sum[pixel + 2] = b * own + sum[pixel + 2] * rest
    sum[pixel + 3] = own + sum[pixel + 3] * rest
  }
}

function bytesOfOne(sum: Float32Array, [r, g, b]: Rgb): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(sum.length * 4)
  for (let i = 0, at = 0; i < sum.length; i++, at += 4) {
    if (sum[i] === 0) continue
    rgba[at] = r
    rgba[at + 1] = g
    rgba[at + 2] = b
    rgba[at + 3] = sum[i] * 255
  }
  return rgba
}

function bytesOf(sum: Float32Array): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(sum.length)
  for (let i = 0; i < sum.length; i += 4) {
    const opacity = sum[i + 3]
    if (opacity === 0) continue
    rgba[i] = sum[i] / opacity
    rgba[i + 1] = sum[i + 1] / opacity
    rgba[i + 2] = sum[i + 2] / opacity
    rgba[i + 3] = opacity * 255
  }
  return rgba
}

/** The device pixels that discs reach, as far as they reach into the scene. */
function boundsOf(
  x: Float32Array,
  y: Float32Array,
  radius: Float32Array,
  width: number,
  height: number,
  density: number,
): { left: number; top: number; right: number; bottom: number } {
  let [left, top, right, bottom] = [width, height, 0, 0]
  let largest = 0
  for (let i = 0; i < x.length; i++) {
    if (x[i] < left) left = x[i]
    if (y[i] < top) top = y[i]
    if (x[i] > right) right = x[i]
    if (y[i] > bottom) bottom = y[i]
    if (radius[i] > largest) largest = radius[i]
  }
  const room = Math.ceil(largest * density) + 2
  return {
    left: Math.floor(Math.max(0, left * density)) - room,
    top: Math.floor(Math.max(0, top * density)) - room,
    right: Math.ceil(Math.min(width, right * density)) + room + 1,
    bottom: Math.ceil(Math.min(height, bottom * density)) + room + 1,
  }
}
