import type { Drawing } from '../../describe/description.ts'
import { kind } from '../../describe/kind.ts'
import type { DrawInput, Marks } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { Areas, Batch, Lines } from '../../scene/scene.ts'
import type { Curve } from './curve.ts'
import { type Fit, fitCurve } from './curves.ts'
import { formulaText, timeStepOf } from './formula.ts'

/** Pixels from one vertex of a curve to the next. */
const STEP = 4

interface Fitted {
  curve: Curve
  min: number
  max: number
}

/** A curve fitted through the points of each series, with its formula, and a band of confidence where one is wished for. */
export const trend = kind<Pick<Drawing<any>, 'fit' | 'band'>>({
  name: 'trend',
  looks: ['fit', 'band'],
  styles: ['color', 'opacity', 'width', 'dash', 'caps'],
  roles: { x: 'position', y: 'position', color: 'category', series: 'category' },
  // Curves of logarithms and of neighbourhoods are not those of middles.
  gathers: ({ fit = 'linear' }) => (fit === 'linear' || typeof fit === 'object' ? 'means' : 'sample'),
  swatch: 'line',
  aside: true,
  labelled: true,
  draw(input) {
    const { id, marks, x, style, memory, options } = input
    const { fit = 'linear' } = options
    const band = confidenceOf(options)
    const found = remember(memory, `curves ${JSON.stringify(fit)}`, () =>
      marks.series.map((_, s) => fitSeries(marks, s, fit, x.kind.name === 'time')),
    )
    const vertices = found.map(fitted => (fitted ? verticesOf(fitted, input) : []))
    const lines = linesOf(input, vertices, `${id}/trend`)
    lines.width.fill(style.width ?? 2)
    lines.labels = found.map(
      fitted => fitted && formulaText(fitted.curve, stepOf(input), input.locale, fitted),
    )
    return band > 0 && fit !== 'local' ? [bandOf(input, vertices, found, band), lines] : [lines]

    function stepOf({ marks: { x: positions } }: DrawInput) {
      if (x.kind.name !== 'time') return undefined
      const span = Math.max(...found.map(fitted => (fitted ? fitted.max - fitted.min : 0)))
      return timeStepOf(positions, span)
    }
  },
  extent(marks, _measured, _arrange, { options, time }) {
    const { fit = 'linear' } = options
    const band = confidenceOf(options)
    let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
    const take = (value: number) => {
      if (value < min) min = value
      if (value > max) max = value
    }
    if (marks.crowd?.ends) marks.crowd.ends.forEach(take)
    else
      marks.y.at.forEach((value, mark) => {
        // A row without a place along x is not drawn.
        if (!Number.isNaN(marks.x.at[mark])) take(value)
      })
    // A curve that goes beyond the points by no more than rounding must not stretch the axis.
    const slack = 1e-9 * Math.max(Math.abs(min), Math.abs(max))
    const takeCurve = (value: number) => {
      if (value < min - slack || value > max + slack) take(value)
    }
    marks.series.forEach((_, s) => {
      const fitted = fitSeries(marks, s, fit, time)
      if (!fitted) return
      for (let i = 0; i <= LOOKS; i++) {
        const x = fitted.min + ((fitted.max - fitted.min) * i) / LOOKS
        takeCurve(fitted.curve.at(x))
        if (band > 0) fitted.curve.reach(x, band).forEach(takeCurve)
      }
    })
    return [min, max]
  },
})

/** The confidence of the band that is wished for; 0 for none. */
const confidenceOf = ({ band }: Pick<Drawing<any>, 'band'>): number => (band === true ? 0.95 : band || 0)

/** Places at which a curve's reach is looked for. */
const LOOKS = 40

function fitSeries(marks: Marks, s: number, fit: Fit, time: boolean): Fitted | undefined {
  const xs: number[] = []
  const ys: number[] = []
  const { crowd } = marks
  const weights: number[] | undefined = crowd?.spreads && []
  let within = 0
  for (let i = 0; i < marks.length; i++) {
    if ((marks.seriesOf?.[i] ?? 0) !== s) continue
    const [px, py] = [marks.x.at[i], marks.y.at[i]]
    if (Number.isFinite(px) && Number.isFinite(py)) {
      xs.push(px)
      ys.push(py)
      weights?.push(crowd!.rows[i])
      within += crowd?.spreads?.[i] ?? 0
    }
  }
  if (xs.length < 2) return undefined
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (const value of xs) {
    if (value < min) min = value
    if (value > max) max = value
  }
  // Logarithms of times count from the first one, or they would be of 1970.
  const start = time && (fit === 'log' || fit === 'power') ? min - (max - min) / 100 : 0
  const curve = fitCurve(
    start === 0 ? xs : xs.map(value => value - start),
    ys,
    fit,
    weights && { weights, within },
  )
  if (!curve) return undefined
  const shifted: Curve =
    start === 0
      ? curve
      : {
          ...curve,
          at: value => curve.at(value - start),
          reach: (value, confidence) => curve.reach(value - start, confidence),
        }
  return { curve: shifted, min, max }
}

interface Vertex {
  x: number
  y: number
}

/** Vertices along a curve, close enough for it to look bent rather than broken. */
function verticesOf({ curve, min, max }: Fitted, { x }: DrawInput): Vertex[] {
  const [a, b] = [x.map(min), x.map(max)]
  const steps = Math.max(1, Math.min(400, Math.ceil(Math.abs(b - a) / STEP)))
  return Array.from({ length: steps + 1 }, (_, i) => {
    const value = i === 0 ? min : i === steps ? max : x.invert(a + ((b - a) * i) / steps)
    return { x: value, y: curve.at(value) }
  })
}

function base(input: DrawInput, vertices: Vertex[][], id: string) {
  const { marks, x, style } = input
  const all = vertices.flat()
  const starts = new Uint32Array(vertices.length + 1)
  vertices.forEach((list, i) => {
    starts[i + 1] = starts[i] + list.length
  })
  return {
    id,
    part: 'data' as const,
    clip: true,
    names: marks.series.map(series => series.key),
    keys: [],
    colors: marks.series.map(series => style.color ?? series.color),
    color: Uint16Array.from(marks.series, (_, i) => i),
    along: { x: x.name, y: input.y.name },
    starts,
    x: Float32Array.from(all, vertex => x.map(vertex.x)),
    atX: Float64Array.from(all, vertex => vertex.x),
  }
}

const place = ({ y }: DrawInput, value: number) => (y.kind.allows(value) ? y.map(value) : Number.NaN)

function linesOf(input: DrawInput, vertices: Vertex[][], id: string): Lines {
  const { style, marks } = input
  const atY = Float64Array.from(vertices.flat(), vertex => vertex.y)
  return {
    ...base(input, vertices, id),
    kind: 'lines',
    alpha: style.opacity === undefined ? undefined : new Float32Array(vertices.length).fill(style.opacity),
    y: Float32Array.from(atY, value => place(input, value)),
    atY,
    width: new Float32Array(vertices.length).fill(2),
    dash: marks.series.map(series => style.dash ?? series.dash),
    flat: style.caps === false,
  }
}

function bandOf(
  input: DrawInput,
  vertices: Vertex[][],
  curves: readonly (Fitted | undefined)[],
  confidence: number,
): Batch {
  const reach = vertices.flatMap((list, i) => list.map(({ x }) => curves[i]!.curve.reach(x, confidence)))
  const atBase = Float64Array.from(reach, ([below]) => below)
  const atTop = Float64Array.from(reach, ([, above]) => above)
  const areas: Areas = {
    ...base(input, vertices, `${input.id}/band`),
    kind: 'areas',
    alpha: new Float32Array(vertices.length).fill(0.14),
    top: Float32Array.from(atTop, value => place(input, value)),
    base: Float32Array.from(atBase, value => place(input, value)),
    atTop,
    atBase,
  }
  return areas
}
