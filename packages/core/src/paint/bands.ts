import { type PathSink, traceCurve } from '../scene/curve.ts'
import type { Areas } from '../scene/scene.ts'

/** Draws one area as closed bands: along its upper edge, back along its lower one. Missing vertices part bands. */
export function traceBands(
  { starts, x, top, base, smooth }: Areas,
  area: number,
  sink: PathSink,
  close: () => void,
): void {
  const end = starts[area + 1]
  const present = (i: number) => i < end && x[i] === x[i] && top[i] === top[i] && base[i] === base[i]
  for (let from = starts[area]; from < end; from++) {
    if (!present(from)) continue
    let to = from
    while (present(to)) to++
    if (to - from > 1) {
      if (smooth) {
        traceCurve(x, top, from, to, sink)
        traceCurve(x, base, from, to, sink, true)
      } else {
        sink.moveTo(x[from], top[from])
        for (let i = from + 1; i < to; i++) sink.lineTo(x[i], top[i])
        for (let i = to - 1; i >= from; i--) sink.lineTo(x[i], base[i])
      }
      close()
    }
    from = to
  }
}
