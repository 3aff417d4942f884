/** What a path is drawn into. */
export interface PathSink {
  moveTo(x: number, y: number): void
  lineTo(x: number, y: number): void
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void
}

/**
 * Draws a smooth curve through points from left to right that never overshoots them: a monotone cubic after
 * M. Steffen, "A simple method for monotonic interpolation in one dimension" (Astronomy & Astrophysics 239, 1990).
 * A missing vertex (NaN) breaks the curve. `back`: the other way round, joined to what is drawn already.
 */
export function traceCurve(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  start: number,
  end: number,
  sink: PathSink,
  back = false,
): void {
  const run: number[] = []
  const flush = () => {
    if (run.length > 0) traceRun(back ? [...run].reverse() : run, x, y, sink, back)
    run.length = 0
  }
  for (let i = start; i < end; i++) {
    if (x[i] === x[i] && y[i] === y[i]) run.push(i)
    else flush()
  }
  flush()
}

function traceRun(
  run: readonly number[],
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  sink: PathSink,
  joined: boolean,
): void {
  const first = run[0]
  if (joined) sink.lineTo(x[first], y[first])
  else sink.moveTo(x[first], y[first])
  const last = run.length - 1
  const rise = (i: number) => {
    const width = x[run[i + 1]] - x[run[i]]
    return width === 0 ? 0 : (y[run[i + 1]] - y[run[i]]) / width
  }
  const slopes = run.map((_, i) => {
    if (i === 0 || i === last) return Number.NaN
    const before = Math.abs(x[run[i]] - x[run[i - 1]])
    const after = Math.abs(x[run[i + 1]] - x[run[i]])
    const a = rise(i - 1)
    const b = rise(i)
    const mean = (a * after + b * before) / (before + after || 1)
    return (Math.sign(a) + Math.sign(b)) * Math.min(Math.abs(a), Math.abs(b), Math.abs(mean) / 2)
  })
  if (last > 0) {
    slopes[0] = last > 1 ? bounded((3 * rise(0) - slopes[1]) / 2, rise(0)) : rise(0)
    slopes[last] = last > 1 ? bounded((3 * rise(last - 1) - slopes[last - 1]) / 2, rise(last - 1)) : rise(0)
  }
  for (let i = 0; i < last; i++) {
    const from = run[i]
    const to = run[i + 1]
    const third = (x[to] - x[from]) / 3
    sink.bezierCurveTo(
      x[from] + third,
      y[from] + third * slopes[i],
      x[to] - third,
      y[to] - third * slopes[i + 1],
      x[to],
      y[to],
    )
  }
}

/** An end's slope keeps the direction of its neighbour and at most twice its steepness. */
function bounded(slope: number, neighbour: number): number {
  if (slope * neighbour <= 0) return 0
  return Math.abs(slope) > 2 * Math.abs(neighbour) ? 2 * neighbour : slope
}
