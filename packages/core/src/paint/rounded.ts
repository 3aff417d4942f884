import type { Context2D } from './context.ts'

/** A line a pixel wide around a rectangle. */
export function edgeRect(
  context: Context2D,
  x: number,
  y: number,
  w: number,
  h: number,
  color: string,
): void {
  context.strokeStyle = color
  context.lineWidth = 1
  context.beginPath()
  context.rect(x - 0.5, y - 0.5, w + 1, h + 1)
  context.stroke()
}

/** A rectangle with round corners on one side: 1 above, 2 right, 3 below, 4 left. */
export function roundedRect(
  context: Context2D,
  x: number,
  y: number,
  w: number,
  h: number,
  side: number,
  r: number,
): void {
  const corner = (sides: number[]) => (sides.includes(side) ? r : 0)
  const right = x + w
  const bottom = y + h
  context.beginPath()
  context.moveTo(x + corner([1, 4]), y)
  context.arcTo(right, y, right, bottom, corner([1, 2]))
  context.arcTo(right, bottom, x, bottom, corner([2, 3]))
  context.arcTo(x, bottom, x, y, corner([3, 4]))
  context.arcTo(x, y, right, y, corner([1, 4]))
  context.closePath()
  context.fill()
}
