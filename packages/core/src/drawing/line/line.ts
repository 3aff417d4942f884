import type { Drawing } from '../../describe/description.ts'
import { kind } from '../../describe/kind.ts'
import type { Between, Marks, Slots } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import { nearPixel, type PositionScale } from '../../scale/scale.ts'
import type { Discs, Lines } from '../../scene/scene.ts'
import { picked } from '../../table/cells/cells.ts'
import { inOrder } from '../../table/cells/in-order.ts'
import { buildPyramid } from '../../table/cells/pyramid.ts'
import { lonePoints } from '../lone-points.ts'
import { moveToSlots, slotShift } from '../slots.ts'
import { broken, GAP, reachOfSpan } from './breaks.ts'
import { held } from './hold.ts'
import { type Run, VertexList, visiblePath } from './path.ts'

/** Joins the marks of each series in the order of x, whatever order the rows came in; a missing value leaves a gap. */
export const line = kind<Pick<Drawing<any>, 'breakAfter'>>({
  name: 'line',
  looks: ['arrange', 'between', 'points', 'breakAfter'],
  styles: ['color', 'opacity', 'width', 'dash', 'caps', 'size'],
  roles: { x: 'position', y: 'position', color: 'category', series: 'category', dash: 'category' },
  gathers: 'stretches',
  swatch: 'line',
  arrange: 'overlap',
  arranges: ['side', 'overlap'],
  draw({ id, marks, x, y, plot, density, style, memory, between, points, theme, options, slots }) {
    const runs = rememberedRuns(memory, marks, between)
    let vertices = new VertexList(Math.min(marks.length + 2, Math.ceil(plot.width * density) * 4 + 8))
    let starts = new Uint32Array(runs.length + 1)
    let thinned = false
    runs.forEach((run, i) => {
      thinned = visiblePath(run, x, plot, density, vertices) || thinned
      starts[i + 1] = vertices.length
    })
    // What is nearer than two pixels is near, or a line that is thinned would be in pieces.
    const pixels = 2 / Math.abs(x.factor * density || 1)
    if (options.breakAfter !== undefined)
      ({ vertices, starts } = broken(vertices, starts, Math.max(pixels, reachOfSpan(options.breakAfter))))
    if (slots) shiftVertices(slots, marks, vertices, { x, y })
    const count = vertices.length
    const px = new Float32Array(count)
    const py = new Float32Array(count)
    const xFactor = x.factor
    const yFactor = y.factor
    for (let i = 0; i < count; i++) {
      px[i] = nearPixel(xFactor * x.kind.forward(vertices.x[i]) + x.offset)
      const value = vertices.y[i]
      py[i] = y.kind.allows(value) ? nearPixel(yFactor * y.kind.forward(value) + y.offset) : Number.NaN
    }
    const { mark } = vertices
    const lines: Lines = {
      kind: 'lines',
      id: `${id}/line`,
      part: 'data',
      clip: true,
      names: marks.series.map(series => series.key),
      // Vertices of a thinned line stand for stretches of rows, not for rows, so they have no keys.
      keys: thinned
        ? []
        : Array.from({ length: count }, (_, i) => (mark[i] === GAP ? `gap ${i}` : marks.keyOf(mark[i]))),
      rows: i => (mark[i] < 0 ? [] : marks.rowsOf(mark[i])),
      colors: marks.series.map(series => style.color ?? series.color),
      color: Uint16Array.from(marks.series, (_, i) => i),
      alpha: style.opacity === undefined ? undefined : new Float32Array(runs.length).fill(style.opacity),
      along: { x: x.name, y: y.name },
      starts,
      x: px,
      y: py,
      atX: vertices.x.subarray(0, count),
      atY: vertices.y.subarray(0, count),
      width: new Float32Array(runs.length).fill(style.width ?? (count > plot.width * 3 ? 1.5 : 2)),
      dash: marks.series.map(series => style.dash ?? series.dash),
      smooth: between === 'smooth' && !thinned,
      flat: style.caps === false,
    }
    const radius = style.size ?? 3.5
    const marked =
      points && !thinned
        ? between.startsWith('hold')
          ? [pointsAtMarks(lines, marks, x, y, radius, theme.background, slots)]
          : pointsOf(lines, radius, theme.background)
        : lonePoints(lines)
    return [lines, ...marked]
  },
})

/** A disc at every datum of lines that hold their values: their corners are no data. */
function pointsAtMarks(
  lines: Lines,
  marks: Marks,
  x: PositionScale,
  y: PositionScale,
  radius: number,
  ring: string,
  slots: Slots | undefined,
): Discs {
  const place = (scale: PositionScale) => (value: number) =>
    scale.kind.allows(value) ? nearPixel(scale.map(value)) : Number.NaN
  const discs: Discs = {
    kind: 'discs',
    id: `${lines.id}/points`,
    part: 'data',
    clip: true,
    keys: Array.from({ length: marks.length }, (_, mark) => marks.keyOf(mark)),
    rows: marks.rowsOf,
    colors: lines.colors,
    color: marks.seriesOf ?? new Uint16Array(marks.length),
    along: lines.along,
    x: Float32Array.from(marks.x.at, place(x)),
    y: Float32Array.from(marks.y.at, place(y)),
    radius: new Float32Array(marks.length).fill(radius),
    ring: { color: ring, width: 1.5 },
  }
  if (slots) moveToSlots(slots, marks, { x, y }, discs)
  return discs
}

/** Moves the corners of lines to their slots, in the units of the data: what moves them reads where they are there. */
function shiftVertices(
  slots: Slots,
  marks: Marks,
  vertices: VertexList,
  scales: Record<'x' | 'y', PositionScale>,
): void {
  const { along } = slots
  const scale = scales[along]
  if (!scale.kind.straight) return
  const shift = slotShift(slots, marks, scale.map)
  for (let i = 0; i < vertices.length; i++)
    if (vertices.mark[i] >= 0) vertices[along][i] += shift(vertices.mark[i]) / scale.factor
}

/** A disc at every point of the lines. */
function pointsOf(lines: Lines, radius: number, ring: string): Discs[] {
  const lineOf = Uint16Array.from(lines.x, (_, i) =>
    lines.names.findIndex((_name, line) => i < lines.starts[line + 1]),
  )
  return [
    {
      kind: 'discs',
      id: `${lines.id}/points`,
      part: 'data',
      clip: true,
      keys: lines.keys,
      rows: lines.rows,
      colors: lines.colors,
      color: lineOf.map(line => lines.color[line]),
      along: lines.along,
      x: lines.x,
      y: lines.y,
      radius: new Float32Array(lines.x.length).fill(radius),
      ring: { color: ring, width: 1.5 },
    },
  ]
}

/** The runs of each series, sorted by x; worked out once for each set of marks. */
const rememberedRuns = (memory: Map<string, unknown>, marks: Marks, between: Between): Run[] =>
  remember(memory, `runs ${between}`, () =>
    between.startsWith('hold')
      ? runsOf(marks).map(run => held(run, marks, between))
      : (keptRuns(marks) ?? runsOf(marks)),
  )

/** The runs of series whose rows are kept in order while they change; those of a single one in order need no keeping. */
function keptRuns({ x, series, seriesOf, runOf }: Marks): Run[] | undefined {
  if (!runOf || (x.sorted && !seriesOf)) return undefined
  const runs = series.map((_, s) => runOf(s))
  return runs.every(run => run !== undefined)
    ? runs.map(({ along, values, pyramid, rowOf }) => ({
        x: along,
        y: values,
        marks: undefined,
        markOf: rowOf,
        pyramid,
      }))
    : undefined
}

function runsOf(marks: Marks): Run[] {
  const { x, y, seriesOf, series, length } = marks
  if (!seriesOf && x.sorted)
    return [{ x: x.at, y: y.at, marks: undefined, pyramid: y.pyramid?.() ?? buildPyramid(y.at) }]
  const xs = x.at
  const sizes = new Uint32Array(series.length + 1)
  for (let i = 0; i < length; i++) if (xs[i] === xs[i]) sizes[(seriesOf ? seriesOf[i] : 0) + 1]++
  for (let s = 0; s < series.length; s++) sizes[s + 1] += sizes[s]
  const next = sizes.slice()
  const order = new Int32Array(sizes[series.length])
  for (let i = 0; i < length; i++) if (xs[i] === xs[i]) order[next[seriesOf ? seriesOf[i] : 0]++] = i
  return series.map((_, s) => {
    const rows = order.subarray(sizes[s], sizes[s + 1])
    const own = x.sorted ? rows : inOrder(xs, rows)
    const ys = picked(y.at, own, new Float64Array(own.length))
    return { x: picked(xs, own, new Float64Array(own.length)), y: ys, marks: own, pyramid: buildPyramid(ys) }
  })
}
