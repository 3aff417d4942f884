import { type PathSink, traceCurve } from '../scene/curve.ts'
import type { Lines } from '../scene/scene.ts'
import { short } from './hundredths.ts'

/** A box whose side `side` (1 above, 2 right, 3 below, 4 left) has round corners. */
export function roundedPath(x: number, y: number, w: number, h: number, side: number, r: number): string {
  const right = short(x + w)
  const bottom = short(y + h)
  const corner = (toX: number, toY: number) => `A${short(r)} ${short(r)} 0 0 1 ${short(toX)} ${short(toY)}`
  switch (side) {
    case 1:
      return `M${short(x)} ${bottom}V${short(y + r)}${corner(x + r, y)}H${short(x + w - r)}${corner(x + w, y + r)}V${bottom}Z`
    case 2:
      return `M${short(x)} ${short(y)}H${short(x + w - r)}${corner(x + w, y + r)}V${short(y + h - r)}${corner(x + w - r, y + h)}H${short(x)}Z`
    case 3:
      return `M${right} ${short(y)}V${short(y + h - r)}${corner(x + w - r, y + h)}H${short(x + r)}${corner(x, y + h - r)}V${short(y)}Z`
    default:
      return `M${right} ${bottom}H${short(x + r)}${corner(x, y + h - r)}V${short(y + r)}${corner(x + r, y)}H${right}Z`
  }
}

/** Collects a path as SVG writes it. */
export function pathText(): PathSink & { parts: string[]; closePath(): void } {
  const parts: string[] = []
  return {
    parts,
    closePath: () => parts.push('Z'),
    moveTo: (x, y) => parts.push(`M${short(x)} ${short(y)}`),
    lineTo: (x, y) => parts.push(`L${short(x)} ${short(y)}`),
    bezierCurveTo: (x1, y1, x2, y2, x, y) =>
      parts.push(`C${short(x1)} ${short(y1)} ${short(x2)} ${short(y2)} ${short(x)} ${short(y)}`),
  }
}

/** The path of one line of a batch; empty where it has no vertex. */
export function linePath(batch: Lines, line: number): string {
  if (batch.smooth) {
    const path = pathText()
    traceCurve(batch.x, batch.y, batch.starts[line], batch.starts[line + 1], path)
    return path.parts.join('')
  }
  const { x, y, starts } = batch
  const parts: string[] = []
  let pen = false
  for (let i = starts[line]; i < starts[line + 1]; i++) {
    const present = x[i] === x[i] && y[i] === y[i]
    if (present) {
      parts.push(`${pen ? 'L' : 'M'}${short(x[i])} ${short(y[i])}`)
    }
    pen = present
  }
  return parts.join('')
}
