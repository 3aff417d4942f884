import type { Wedges } from '../scene/scene.ts'

/** What a slice is traced onto: a canvas, or a collector of SVG path text. */
interface WedgeSink {
  moveTo(x: number, y: number): void
  lineTo(x: number, y: number): void
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void
  closePath(): void
}

const TURN = Math.PI * 2

/** Traces one slice; a whole turn is traced as two rims without a cut. Slices without an angle are left out. */
export function traceWedge(batch: Wedges, i: number, sink: WedgeSink): void {
  const { x, y, from, to, inner, outer } = batch
  const angle = to[i] - from[i]
  if (!(angle > 1e-6) || !(outer[i] > 0)) return
  const whole = angle >= TURN - 1e-6
  const [fx, fy] = at(x[i], y[i], outer[i], from[i])
  sink.moveTo(fx, fy)
  arc(sink, x[i], y[i], outer[i], from[i], to[i])
  if (inner[i] > 0) {
    const [ix, iy] = at(x[i], y[i], inner[i], to[i])
    if (whole) {
      sink.closePath()
      sink.moveTo(ix, iy)
    } else sink.lineTo(ix, iy)
    arc(sink, x[i], y[i], inner[i], to[i], from[i])
  } else if (!whole) sink.lineTo(x[i], y[i])
  sink.closePath()
}

const at = (x: number, y: number, radius: number, angle: number): [number, number] => [
  x + Math.sin(angle) * radius,
  y - Math.cos(angle) * radius,
]

/** An arc as cubic curves of at most an eighth of a turn each: the error is below a thousandth of a pixel. */
function arc(sink: WedgeSink, x: number, y: number, radius: number, from: number, to: number): void {
  const parts = Math.max(1, Math.ceil(Math.abs(to - from) / (Math.PI / 4)))
  const step = (to - from) / parts
  // The length of handles for which the curve meets the circle in its middle.
  const handle = (4 / 3) * Math.tan(step / 4) * radius
  for (let k = 0; k < parts; k++) {
    const a = from + step * k
    const b = a + step
    const [ax, ay] = at(x, y, radius, a)
    const [bx, by] = at(x, y, radius, b)
    sink.bezierCurveTo(
      ax + Math.cos(a) * handle,
      ay + Math.sin(a) * handle,
      bx - Math.cos(b) * handle,
      by - Math.sin(b) * handle,
      bx,
      by,
    )
  }
}
