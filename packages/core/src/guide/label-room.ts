import Flatbush from 'flatbush'
import type { Batch, Box } from '../scene/scene.ts'
import type { Font, Measure } from '../theme/text-width.ts'

/** How far letters rise above and hang below their baseline, as shares of the font size. */
const RISE = 0.76
const HANG = 0.2

/** The box of a text; `x` and `y` are its anchor on the baseline. */
export function textBox(
  width: number,
  font: Font,
  x: number,
  y: number,
  anchor: 'start' | 'middle' | 'end',
): Box {
  const left = anchor === 'start' ? x : anchor === 'middle' ? x - width / 2 : x - width
  return { x: left, y: y - font.size * RISE, width, height: font.size * (RISE + HANG) }
}

/** A straight line between two places. */
interface Stroke {
  x1: number
  y1: number
  x2: number
  y2: number
}

const apart = (a: Box, b: Box, gap: number) =>
  a.x + a.width + gap <= b.x ||
  b.x + b.width + gap <= a.x ||
  a.y + a.height + gap <= b.y ||
  b.y + b.height + gap <= a.y

/** Lines are cut into pieces of this many pixels, so that the boxes around slanting ones stay small. */
const PIECE = 12
/** More obstacles than these are a ground that labels cannot avoid. */
const MOST = 20_000

/** The room of a plot in which labels find their places: what is taken by shapes, and what by other labels. */
export class LabelRoom {
  readonly limits: Box
  private readonly taken: Box[] = []
  private readonly fine: Flatbush | undefined
  private readonly broad: Flatbush | undefined
  private readonly grounds: readonly Ground[]

  constructor(limits: Box, batches: readonly Batch[]) {
    this.limits = limits
    const data = batches.filter(batch => batch.part === 'data')
    this.fine = indexOf(data.flatMap(obstaclesOf))
    this.grounds = data.flatMap(groundsOf)
    this.broad = indexOf(this.grounds)
  }

  /** Whether a box lies within the limits and touches no label. */
  isFree(box: Box, gap = 2): boolean {
    return this.isInside(box) && this.taken.every(other => apart(box, other, gap))
  }

  isInside({ x, y, width, height }: Box): boolean {
    const { limits } = this
    return (
      x >= limits.x &&
      y >= limits.y &&
      x + width <= limits.x + limits.width &&
      y + height <= limits.y + limits.height
    )
  }

  /** Whether no point or line lies under a box. */
  isClear(box: Box): boolean {
    return !hits(this.fine, box)
  }

  /** How far a stroke from (x1, y1) runs until it has left all labels, in pixels. */
  leavesLabels({ x1, y1, x2, y2 }: Stroke): number {
    const length = Math.hypot(x2 - x1, y2 - y1)
    const pieces = piecesOf(x1, y1, x2, y2, 2)
    const last = pieces.findLastIndex(piece => !this.taken.every(other => apart(piece, other, 0)))
    return last < 0 ? 0 : ((last + 1) / pieces.length) * length
  }

  /** Whether a leader crosses no point or line, and no label. */
  isLeaderClear({ x1, y1, x2, y2 }: Stroke): boolean {
    // Its own point lies at its beginning.
    const pieces = piecesOf(x1 + (x2 - x1) * 0.2, y1 + (y2 - y1) * 0.2, x2, y2, 4)
    return pieces.every(piece => this.isClear(piece) && this.taken.every(other => apart(piece, other, 0)))
  }

  /** Whether no bar or cell lies under a box. */
  isOffBars(box: Box): boolean {
    return !hits(this.broad, box)
  }

  /** Whether nothing at all lies under a box, bars and cells included. */
  isBare(box: Box): boolean {
    return !hits(this.fine, box) && !hits(this.broad, box)
  }

  /** The colour of the bar or cell that a box lies on as a whole, with nothing else under it. */
  groundOf(box: Box): string | undefined {
    const { x, y, width, height } = box
    const found = this.broad?.search(x, y, x + width, y + height) ?? []
    const ground = found.length === 1 ? this.grounds[found[0]] : undefined
    const within =
      ground &&
      x >= ground.x &&
      y >= ground.y &&
      x + width <= ground.x + ground.width &&
      y + height <= ground.y + ground.height
    return within && this.isClear(box) ? ground.color : undefined
  }

  take(box: Box): void {
    this.taken.push(box)
  }
}

const hits = (index: Flatbush | undefined, { x, y, width, height }: Box): boolean =>
  index !== undefined && index.search(x, y, x + width, y + height).length > 0

function indexOf(boxes: readonly Box[]): Flatbush | undefined {
  const count = Math.min(boxes.length, MOST)
  if (count === 0) return undefined
  const index = new Flatbush(count)
  for (let i = 0; i < count; i++) {
    const { x, y, width, height } = boxes[i]
    index.add(x, y, x + width, y + height)
  }
  index.finish()
  return index
}

interface Ground extends Box {
  color: string | undefined
}

/** Bars and cells, as far as they are solid. */
function groundsOf(batch: Batch): Ground[] {
  if (batch.kind !== 'rects') return []
  return Array.from(batch.x, (x, i) => ({
    x,
    y: batch.y[i],
    width: batch.width[i],
    height: batch.height[i],
    color: (batch.alpha?.[i] ?? 1) > 0.8 ? batch.colors[batch.color[i]] : undefined,
  })).filter((box, i) => box.width > 0 && box.height > 0 && (batch.alpha?.[i] ?? 1) > 0.3)
}

/** The room that words and what belongs to them take, whole boxes included. */
export function boxesOf(batch: Batch, measure: Measure): Box[] {
  if (batch.kind === 'texts')
    return batch.texts.map((text, i) =>
      textBox(measure(text, batch), batch, batch.x[i], batch.y[i], batch.anchor),
    )
  return batch.kind === 'rects' ? groundsOf(batch) : obstaclesOf(batch)
}

/** Boxes around points and pieces of lines and strokes: what names should not lie on. */
function obstaclesOf(batch: Batch): Box[] {
  if (batch.kind === 'discs')
    return Array.from(batch.x, (x, i) => {
      const r = batch.radius[i]
      return { x: x - r, y: batch.y[i] - r, width: r * 2, height: r * 2 }
    }).filter(box => box.width > 0 && !Number.isNaN(box.x + box.y))
  if (batch.kind === 'segments')
    return Array.from(batch.x1, (_, i) => piecesOf(batch.x1[i], batch.y1[i], batch.x2[i], batch.y2[i])).flat()
  if (batch.kind !== 'lines') return []
  const out: Box[] = []
  for (let line = 0; line < batch.names.length; line++)
    for (let i = batch.starts[line] + 1; i < batch.starts[line + 1]; i++) {
      out.push(...piecesOf(batch.x[i - 1], batch.y[i - 1], batch.x[i], batch.y[i]))
      if (out.length > MOST) return out
    }
  return out
}

function piecesOf(x1: number, y1: number, x2: number, y2: number, piece = PIECE): Box[] {
  const length = Math.hypot(x2 - x1, y2 - y1)
  if (!(length >= 0)) return []
  const count = Math.max(1, Math.min(200, Math.ceil(length / piece)))
  return Array.from({ length: count }, (_, i) => {
    const at = (a: number, b: number, k: number) => a + ((b - a) * k) / count
    const [ax, bx] = [at(x1, x2, i), at(x1, x2, i + 1)]
    const [ay, by] = [at(y1, y2, i), at(y1, y2, i + 1)]
    return { x: Math.min(ax, bx), y: Math.min(ay, by), width: Math.abs(bx - ax), height: Math.abs(by - ay) }
  })
}
