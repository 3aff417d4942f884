import type { Batch, Box } from '../scene/scene.ts'
import type { Font, Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { boxOf, type LabelItem, type LabelJob, type LabelSpot, wayOf } from './bar-labels.ts'
import { segments, TextBuilder } from './build.ts'
import { type LabelRoom, textBox } from './label-room.ts'
import { spotFor } from './label-spots.ts'
import { clean, ellipsis } from './text.ts'

/** Labels beyond this many are a grey mass, and take longer to place than to read. */
export const MOST_LABELS = 400
/** The share of bars without room for their labels from which on none of them has one. */
const MOST_UNLABELLED = 0.2
/** The widest a label may be, in pixels. */
const WIDEST = 170

/** What labels at shapes are written in. */
export const labelFont = ({ sizes }: Theme): Font => ({ size: sizes.caption + 0.5, weight: 400 })

/** The labels that found a place, and how many did not. */
export interface PlacedLabels {
  batches: Batch[]
  left: number
}

/** Places the labels of one batch so that none overlaps another, leaves the plot, or stands on ink it cannot be read on. */
export function placeLabels(
  id: string,
  job: LabelJob,
  room: LabelRoom,
  plot: Box,
  theme: Theme,
  measure: Measure,
): PlacedLabels {
  const font = labelFont(theme)
  const sheet = new Sheet(id, job, font, theme)
  const items = itemsOf(job, plot, font, measure)
  const way = wayOf(items.slice(0, MOST_LABELS), job, room, plot, font, theme)
  let left = 0
  for (const item of items.slice(0, MOST_LABELS)) {
    const spot = spotFor(item, job, room, plot, font, theme, way)
    if (!spot) {
      left++
      continue
    }
    if (spot.side !== undefined) job.sides?.set(item.key, spot.side)
    room.take(textBox(item.width, font, spot.x, spot.y, spot.anchor))
    sheet.add(item, spot)
  }
  // Values at some bars and not at others say something about the bars that is not so.
  if (job.at === 'bar' && job.batch.kind === 'rects' && left > items.length * MOST_UNLABELLED)
    return { batches: [], left: items.length }
  return { batches: sheet.build(), left: left + Math.max(0, items.length - MOST_LABELS) }
}

function itemsOf(
  { batch, textOf, figuresOf, at, sides }: LabelJob,
  plot: Box,
  font: Font,
  measure: Measure,
): LabelItem[] {
  // What stands along a line has the room of the plot.
  const widest = at === 'reference' ? plot.width * 0.9 : WIDEST
  const count =
    batch.kind === 'lines' ? (batch.labels ? batch.names.length : batch.x.length) : batch.color.length
  const items: LabelItem[] = []
  const known = new Set<string | number>()
  for (let shape = 0; shape < count && items.length <= MOST_LABELS * 4; shape++) {
    const words = textOf(shape)
    if (!words || !isSeen(batch, shape, plot)) continue
    const key = batch.kind === 'lines' && batch.labels ? batch.names[shape] : (batch.keys[shape] ?? shape)
    if (known.has(key)) continue
    known.add(key)
    const cut = (text: string) => ellipsis(clean(text).replace(/\n/g, ' '), widest, font, measure)
    const text = cut(words)
    const own = figuresOf?.(shape)
    const figures = own && { ...own, write: (values: readonly number[]) => cut(own.write(values)) }
    items.push({ text, width: measure(text, font), shape, key, figures, side: sides?.get(key) })
  }
  return items
}

/** Whether a shape has a place within the plot: rows without one, and those beyond a zoom, lack no label. */
function isSeen(batch: Batch, shape: number, plot: Box): boolean {
  const meets = (from: number, to: number, start: number, length: number) =>
    Math.max(from, to) >= start - 1 && Math.min(from, to) <= start + length + 1
  const inPlot = (x1: number, x2: number, y1: number, y2: number) =>
    meets(x1, x2, plot.x, plot.width) && meets(y1, y2, plot.y, plot.height)
  if (batch.kind === 'discs' || (batch.kind === 'lines' && !batch.labels))
    return inPlot(batch.x[shape], batch.x[shape], batch.y[shape], batch.y[shape])
  if (batch.kind !== 'rects') return true
  const { x, y, width, height } = boxOf(batch, shape)
  return inPlot(x, x + width, y, y + height)
}

/** Collects texts by anchor, ink and halo, and the leaders. */
class Sheet {
  private readonly builders = new Map<string, { builder: TextBuilder; halo: boolean }>()
  private readonly leaders: { x1: number; y1: number; x2: number; y2: number; key: string | number }[] = []
  private readonly id: string
  private readonly font: Font
  private readonly theme: Theme

  private readonly job: LabelJob

  constructor(id: string, job: LabelJob, font: Font, theme: Theme) {
    this.id = id
    this.job = job
    this.font = font
    this.theme = theme
  }

  add({ text, key, figures }: LabelItem, { x, y, anchor, color, halo, leader }: LabelSpot): void {
    const name = `${this.id}/labels ${anchor}${halo ? '' : ' plain'}`
    let sheet = this.builders.get(name)
    if (!sheet) {
      sheet = { builder: new TextBuilder(name, { ...this.font, anchor }), halo }
      this.builders.set(name, sheet)
    }
    sheet.builder.add(text, x, y, color, key, undefined, figures)
    if (leader) this.leaders.push({ ...leader, key })
  }

  build(): Batch[] {
    const of = this.job.batch.id
    const { measuredOn } = this.job
    const texts = [...this.builders.values()].flatMap(({ builder, halo }) =>
      builder.build().map(batch => ({
        ...batch,
        of,
        measuredOn,
        ...(halo ? { halo: this.theme.background } : {}),
      })),
    )
    return [...segments(`${this.id}/leaders`, this.leaders, { color: this.theme.strong, width: 1 }), ...texts]
  }
}
