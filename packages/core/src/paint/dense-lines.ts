import type { Box, Lines } from '../scene/scene.ts'
import { isTranslucent, readColor } from '../theme/contrast.ts'
import type { Bitmap, Context2D } from './context.ts'
import { Cover } from './cover.ts'

/** From so many vertices on lines are painted pixel by pixel: stroking them takes most of a frame. */
const MANY = 1500
/** Up to so many device pixels of width: a wider line covers so many that stroking takes less time. */
const WIDEST = 2

/** As one picture, whose pixels are covered one by one. */
export function paintDenseLines(
  batch: Lines,
  box: Box,
  context: Context2D,
  density: number,
  bitmap: Bitmap | undefined,
): boolean {
  const { starts, width, dash, colors, color, alpha } = batch
  if (!bitmap || batch.x.length < MANY || batch.smooth || dash.some(dash => dash?.length)) return false
  if (width.some(width => width * density > WIDEST) || colors.some(isTranslucent)) return false
  const inks = colors.map(readColor)
  if (inks.some(ink => ink === undefined)) return false
  const [left, top] = [Math.floor(box.x * density), Math.floor(box.y * density)]
  const columns = Math.ceil((box.x + box.width) * density) - left
  const rows = Math.ceil((box.y + box.height) * density) - top
  if (!(columns > 0 && rows > 0)) return true
  const cover = Cover.empty(columns, rows)
  for (let line = 0; line < batch.names.length; line++) {
    const half = (width[line] * density) / 2
    // A line thinner than a pixel covers no more of it than it is wide.
    const opacity = (alpha ? alpha[line] : 1) * Math.min(1, half * 2)
    trace(cover, batch, starts[line], starts[line + 1], density, left, top, Math.max(0.5, half))
    cover.ink(inks[color[line]]!, opacity)
  }
  context.globalAlpha = 1
  context.drawImage(
    bitmap(cover.rgba, columns, rows),
    left / density,
    top / density,
    columns / density,
    rows / density,
  )
  return true
}

function trace(
  cover: Cover,
  { x, y, flat }: Lines,
  start: number,
  end: number,
  density: number,
  left: number,
  top: number,
  reach: number,
): void {
  // The vertex before, and the direction that leads to it: none at the beginning of a part.
  let ax = Number.NaN
  let ay = Number.NaN
  let ux = 0
  let uy = 0
  for (let i = start; i <= end; i++) {
    const bx = i < end ? x[i] * density - left : Number.NaN
    const by = i < end ? y[i] * density - top : Number.NaN
    const length = Math.sqrt((bx - ax) * (bx - ax) + (by - ay) * (by - ay))
    if (length === 0) continue
    const inPart = ux !== 0 || uy !== 0
    if (length > 0) {
      const vx = (bx - ax) / length
      const vy = (by - ay) / length
      if (inPart || !flat) cover.joint(ax, ay, ux, uy, vx, vy, reach)
      cover.segment(ax, ay, vx, vy, length, reach)
      ux = vx
      uy = vy
    } else {
      if (inPart && !flat) cover.joint(ax, ay, ux, uy, -ux, -uy, reach)
      ux = 0
      uy = 0
    }
    ax = bx
    ay = by
  }
}
