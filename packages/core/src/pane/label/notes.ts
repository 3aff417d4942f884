import type { BoundDrawing } from '../../bind/model.ts'
import type { Note } from '../../describe/description.ts'
import type { Finding } from '../../finding/error.ts'
import type { Found } from '../../finding/found.ts'
import { quoted } from '../../finding/plain-text.ts'
import { segments, TextBuilder } from '../../guide/build.ts'
import type { LabelRoom } from '../../guide/label-room.ts'
import { labelFont } from '../../guide/place-labels.ts'
import { LINE, MIDDLE, wrap } from '../../guide/text.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Batch, Box } from '../../scene/scene.ts'
import type { Value } from '../../table/cells/options.ts'
import { numberOf } from '../../table/group/where.ts'
import type { Font, Measure } from '../../theme/text-width.ts'
import type { Theme } from '../../theme/theme.ts'
import type { DrawnShapes } from './drawn.ts'
import { type PointTarget, pointAtShape } from './note-target.ts'

/** The widths to which words are broken, in pixels, in the order in which they are tried, and their most lines. */
const WIDTHS = [160, 110, 80]
const MOST_LINES = 4
/** Pixels from what a note is about to its words, in the order in which they are tried. */
const DISTANCES = [20, 36, 56, 80, 110, 150]
/** The sides on which words are tried, in degrees from the right: above first, since there is most often room. */
const DIRECTIONS = [45, 135, 90, 0, 180, 315, 225, 270, 22, 158, 67, 113, 338, 202, 293, 247]
/** An arrow that is shorter, in pixels, would be nothing but its head. */
const SHORTEST = 8
/** Pixels that an arrow keeps from what it points at, and the length of its head. */
const APART = 6
const HEAD = 5
/** Length of the ends of a bracket, in pixels. */
const BRACKET = 5

/** What notes are placed from. */
export interface NoteContext {
  notes: readonly Note[]
  drawn: readonly DrawnShapes[]
  scales: ReadonlyMap<string, PositionScale>
  /** Whether a person sees a part of the picture only. */
  zoomed: boolean
  room: LabelRoom
  plot: Box
  theme: Theme
  measure: Measure
}

/** What a note is about, in pixels: a point, or a stretch along one side of the plot. */
type Target = PointTarget | { role: 'x' | 'y'; low: number; high: number }

interface Stroke {
  x1: number
  y1: number
  x2: number
  y2: number
  key: string
}

/** Notes beside what they are about, each where it hides nothing, with an arrow to a datum or a bracket over a stretch. */
export function placeNotes(context: NoteContext): Found<Batch[]> {
  const { notes, room, theme, zoomed } = context
  const font = labelFont(theme)
  const words = (['start', 'middle', 'end'] as const).map(anchor => ({
    anchor,
    builder: new TextBuilder(`notes/words ${anchor}`, { ...font, anchor }),
  }))
  const strokes: Stroke[] = []
  const findings: Finding[] = []
  notes.forEach((note, i) => {
    const target = targetOf(note, i, context)
    if (!target || !isInside(target, context.plot)) {
      if (!zoomed) findings.push(nowhere(note, i))
      return
    }
    const found = bestPlace(note.words, target, font, context)
    if (!found) {
      if (!zoomed) findings.push(noRoom(note, i))
      return
    }
    const { box, anchor, leads, lines } = found
    room.take(box)
    const x = anchor === 'start' ? box.x : anchor === 'end' ? box.x + box.width : box.x + box.width / 2
    lines.forEach((line, row) => {
      const y = box.y + (row + 0.5) * font.size * LINE + font.size * MIDDLE
      words.find(sheet => sheet.anchor === anchor)!.builder.add(line, x, y, theme.text, `${i} ${row}`)
    })
    strokes.push(...leads.map((lead, k) => ({ ...lead, key: `${i} ${k}` })))
  })
  const value = [
    ...segments('notes/leads', strokes, { color: theme.muted, width: 1 }),
    ...words.flatMap(({ builder }) => builder.build().map(batch => ({ ...batch, halo: theme.background }))),
  ]
  return { value, findings }
}

/** The place of a note, its words broken to the first width for which there is one. */
function bestPlace(
  words: string,
  target: Target,
  font: Font,
  context: NoteContext,
): (Placed & { lines: string[] }) | undefined {
  const { measure } = context
  for (const widest of WIDTHS) {
    const lines = wrap(words, widest, font, measure, MOST_LINES)
    const size = {
      width: Math.max(0, ...lines.map(line => measure(line, font))),
      height: lines.length * font.size * LINE,
    }
    const place = 'role' in target ? besideStretch(target, size, context) : besidePoint(target, size, context)
    if (place) return { ...place, lines }
  }
  return undefined
}

type Size = Pick<Box, 'width' | 'height'>
type Placed = { box: Box; anchor: 'start' | 'middle' | 'end'; leads: Omit<Stroke, 'key'>[] }

/** Near a point, on what is bare, else where no point or line lies; the nearest such place. */
function besidePoint(
  { x, y, radius }: PointTarget,
  { width, height }: Size,
  { room }: NoteContext,
): Placed | undefined {
  const spots = DISTANCES.flatMap(distance =>
    DIRECTIONS.map(degrees => {
      const far = distance + radius
      const [across, up] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
      const side = Math.abs(across) < 0.3 ? 0 : Math.sign(across)
      const rise = Math.abs(up) < 0.3 ? 0 : Math.sign(up)
      const anchor: Placed['anchor'] = side > 0 ? 'start' : side < 0 ? 'end' : 'middle'
      const left = x + across * far - ((1 - side) / 2) * width
      const top = y - up * far - ((1 + rise) / 2) * height
      return { box: { x: left, y: top, width, height }, anchor }
    }),
  )
  const free = spots
    .filter(({ box }) => room.isFree(box, 4))
    .map(spot => ({ ...spot, leads: arrow(spot.box, { x, y, radius }, room) }))
  // Best where an arrow can be seen, and hides nothing.
  const seen = ({ leads: [lead] }: Placed) => lead !== undefined && room.isOffBars(around(lead))
  return (
    free.find(spot => room.isBare(spot.box) && seen(spot)) ??
    free.find(spot => room.isBare(spot.box)) ??
    free.find(spot => room.isClear(spot.box))
  )
}

/** From the edge of the words towards a point, with a head. */
function arrow(box: Box, point: PointTarget, room: LabelRoom): Omit<Stroke, 'key'>[] {
  const x1 = Math.max(box.x - 3, Math.min(box.x + box.width + 3, point.x))
  const y1 = Math.max(box.y, Math.min(box.y + box.height, point.y))
  const far = Math.hypot(point.x - x1, point.y - y1)
  const labels = room.leavesLabels({ x1: point.x, y1: point.y, x2: x1, y2: y1 })
  const stop = (far - Math.max(point.radius + APART, labels > 0 ? labels + 3 : 0)) / (far || 1)
  if (!(stop * far > SHORTEST)) return []
  const x2 = x1 + (point.x - x1) * stop
  const y2 = y1 + (point.y - y1) * stop
  const angle = Math.atan2(y1 - y2, x1 - x2)
  const heads = [0.45, -0.45].map(turn => ({
    x1: x2,
    y1: y2,
    x2: x2 + Math.cos(angle + turn) * HEAD,
    y2: y2 + Math.sin(angle + turn) * HEAD,
  }))
  return [{ x1, y1, x2, y2 }, ...heads]
}

const around = ({ x1, y1, x2, y2 }: Omit<Stroke, 'key'>): Box => ({
  x: Math.min(x1, x2),
  y: Math.min(y1, y2),
  width: Math.abs(x2 - x1),
  height: Math.abs(y2 - y1),
})

/** A bracket over a stretch along x, or beside one along y, as near to the plot's edge as there is room. */
function besideStretch(
  { role, low, high }: { role: 'x' | 'y'; low: number; high: number },
  { width, height }: Size,
  { room, plot }: NoteContext,
): Placed | undefined {
  const middle = (low + high) / 2
  const steps = Array.from({ length: 8 }, (_, i) => i * 14)
  for (const bare of [true, false])
    for (const step of steps) {
      const box =
        role === 'x'
          ? {
              x: within(middle - width / 2, plot.x, plot.x + plot.width - width),
              y: plot.y + step,
              width,
              height,
            }
          : {
              x: plot.x + plot.width - width - BRACKET - 6 - step,
              y: within(middle - height / 2, plot.y, plot.y + plot.height - height),
              width,
              height,
            }
      if (!room.isFree(box, 4) || (bare ? !room.isBare(box) : !room.isClear(box))) continue
      const edge = role === 'x' ? box.y + box.height + 4 : box.x + box.width + 6
      const side = (along1: number, across1: number, along2: number, across2: number) =>
        role === 'x'
          ? { x1: along1, y1: across1, x2: along2, y2: across2 }
          : { x1: across1, y1: along1, x2: across2, y2: along2 }
      return {
        box,
        anchor: role === 'x' ? 'middle' : 'end',
        leads: [
          side(low, edge, high, edge),
          side(low, edge, low, edge + BRACKET),
          side(high, edge, high, edge + BRACKET),
        ],
      }
    }
  return undefined
}

const within = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value))

const isStretch = (value: Note['x']): value is { from: Value; until: Value } =>
  typeof value === 'object' && value !== null && 'from' in value

/** Where what a note is about stands; undefined where it stands nowhere. */
function targetOf(note: Note, i: number, { drawn, scales, plot }: NoteContext): Target | undefined {
  const scaleOf = (role: 'x' | 'y') => scales.get(role === 'x' ? 'x' : (note.against ?? 'y'))
  const placeOf = (role: 'x' | 'y', value: Value, end = '') => {
    const scale = scaleOf(role)
    return scale && valueOn(scale, value, `notes[${i}].${role}${end}`)
  }
  for (const role of ['x', 'y'] as const) {
    const stretch = note[role]
    const scale = scaleOf(role)
    if (!isStretch(stretch) || !scale) continue
    const ends = [placeOf(role, stretch.from, '.from'), placeOf(role, stretch.until, '.until')]
    if (ends.some(end => end === undefined || Number.isNaN(end))) return undefined
    const pixels = ends.map(end => scale.map(end!)).sort((a, b) => a - b)
    const [start, length] = role === 'x' ? [plot.x, plot.width] : [plot.y, plot.height]
    const [low, high] = pixels.map(pixel => within(pixel, start, start + length))
    return high > low ? { role, low, high } : undefined
  }
  const x = note.x === undefined || isStretch(note.x) ? undefined : placeOf('x', note.x)
  const y = note.y === undefined || isStretch(note.y) ? undefined : placeOf('y', note.y)
  if (x !== undefined && y !== undefined)
    return { x: scaleOf('x')!.map(x), y: scaleOf('y')!.map(y), radius: 0 }
  const role = x === undefined ? 'y' : 'x'
  const value = x ?? y
  if (value === undefined) return undefined
  const ends = drawn.flatMap(shapes => endsAt(shapes, role, value, note.series))
  // Of several the one that reaches farthest.
  return ends.sort((a, b) => (role === 'x' ? a.y - b.y : b.x - a.x))[0]
}

/** A value of a note on a scale: the place of a category, a moment, or a number. */
function valueOn({ kind, words, zone }: PositionScale, value: Value, path: string): number {
  if (kind.name === 'category') {
    const place = words.indexOf(String(value))
    return place < 0 ? Number.NaN : place
  }
  return numberOf(value, kind.name === 'time' ? 'time' : 'number', zone, path)
}

/** The ends of the shapes of a drawing at a place. */
function endsAt(
  { bound, batches }: DrawnShapes,
  role: 'x' | 'y',
  value: number,
  series: string | undefined,
): PointTarget[] {
  const { marks, drawing } = bound
  if (drawing.kind.aside || drawing.kind.parts) return []
  const at = marks[role]
  const named = (mark: number) => series === undefined || nameOf(bound, mark) === series
  let best = -1
  let least = Number.POSITIVE_INFINITY
  const found: number[] = []
  for (let mark = 0; mark < marks.length; mark++) {
    if (!named(mark)) continue
    if (at.from && at.to) {
      if (value >= at.from[mark] && (value < at.to[mark] || at.at[mark] === value)) found.push(mark)
    } else if (Math.abs(at.at[mark] - value) < least) {
      least = Math.abs(at.at[mark] - value)
      best = mark
    }
  }
  if (best >= 0) found.push(best)
  return found.flatMap(mark => pointAtShape(batches, marks.keyOf(mark)) ?? [])
}

const nameOf = ({ marks }: BoundDrawing, mark: number) => marks.series[marks.seriesOf?.[mark] ?? 0]?.name

const isInside = (target: Target, { x, y, width, height }: Box) =>
  'role' in target ||
  (target.x >= x - 2 && target.x <= x + width + 2 && target.y >= y - 2 && target.y <= y + height + 2)

const nowhere = ({ words }: Note, i: number): Finding => ({
  code: 'note-without-place',
  message: `Nothing stands where the note ${quoted(words)} points, so it is left out`,
  remedy: 'Give values that the chart shows as its x and y, or the name of a series that it draws.',
  path: `notes[${i}]`,
})

const noRoom = ({ words }: Note, i: number): Finding => ({
  code: 'labels-left-out',
  message: `The note ${quoted(words)} has no room beside what it is about and is left out`,
  remedy: 'Make the chart larger, or say it in fewer words.',
  path: `notes[${i}]`,
})
