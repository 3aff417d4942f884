/** The form of a point. */
export type Marker = 'disc' | 'square' | 'diamond' | 'triangle' | 'cross' | 'star'

/** The forms in order of use: the first ones differ most at a glance. */
export const MARKERS: readonly Marker[] = ['disc', 'square', 'triangle', 'diamond', 'cross', 'star']

/** What a form is drawn onto: a canvas, or a collector of SVG path text. */
export interface MarkerSink {
  moveTo(x: number, y: number): void
  lineTo(x: number, y: number): void
  closePath(): void
}

/** Corners of each form around the origin, for a disc of radius 1; all cover about the disc's area. */
const CORNERS: Record<Exclude<Marker, 'disc'>, readonly (readonly [number, number])[]> = {
  square: [
    [-0.886, -0.886],
    [0.886, -0.886],
    [0.886, 0.886],
    [-0.886, 0.886],
  ],
  diamond: [
    [0, -1.3],
    [1.2, 0],
    [0, 1.3],
    [-1.2, 0],
  ],
  triangle: [
    [0, -1.45],
    [1.3, 0.85],
    [-1.3, 0.85],
  ],
  cross: plus(0.42, 1.35),
  star: Array.from({ length: 10 }, (_, i) => {
    const angle = (i * Math.PI) / 5
    const reach = i % 2 === 0 ? 1.6 : 0.72
    return [Math.sin(angle) * reach, -Math.cos(angle) * reach] as const
  }),
}

function plus(half: number, reach: number): [number, number][] {
  const quarter: [number, number][] = [
    [half, -reach],
    [half, -half],
    [reach, -half],
  ]
  // The other three arms are quarter turns of the first.
  return [0, 1, 2, 3].flatMap(turns =>
    quarter.map(([x, y]) => {
      let point: [number, number] = [x, y]
      for (let i = 0; i < turns; i++) point = [-point[1], point[0]]
      return point
    }),
  )
}

/** Traces a form other than the disc around a point; `radius` in pixels is that of the disc it stands for. */
export function traceMarker(
  form: Exclude<Marker, 'disc'>,
  x: number,
  y: number,
  radius: number,
  sink: MarkerSink,
): void {
  CORNERS[form].forEach(([dx, dy], i) => {
    if (i === 0) sink.moveTo(x + dx * radius, y + dy * radius)
    else sink.lineTo(x + dx * radius, y + dy * radius)
  })
  sink.closePath()
}
