import type { Batch, Box, Figures, Rects, Texts } from '../scene/scene.ts'
import { inkOn } from '../theme/contrast.ts'
import type { Font } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { type LabelRoom, textBox } from './label-room.ts'
import { MIDDLE } from './text.ts'

/** What is to stand at the shapes of a batch. */
export interface LabelJob {
  batch: Batch
  /** The words of a shape; empty or undefined for none. */
  textOf(shape: number): string | undefined
  /** The numbers in them. */
  figuresOf?(shape: number): Figures | undefined
  /** The scale on which the first of those is the value end of its shape. */
  measuredOn?: Texts['measuredOn']
  /** By key: which of the places around its shape a label had last. What still has room there stays. */
  sides?: Map<string | number, number>
  /** Where they stand: in cells, at the ends of bars (in the middle of stacked ones), beside points, or along references. */
  at: 'cell' | 'bar' | 'stacked' | 'point' | 'reference'
}

/** By drawing and key: which of the places around its shape a label had last. */
export type LabelSides = Map<number, Map<string | number, number>>

export type Anchor = 'start' | 'middle' | 'end'
export interface Spot {
  x: number
  y: number
  anchor: Anchor
}

/** Pixels between a shape and its label. */
export const GAP = 4

/** A label before it has a place. */
export interface LabelItem {
  text: string
  width: number
  shape: number
  key: string | number
  figures: Figures | undefined
  /** Which of the places around its shape it had last; undefined for none. */
  side?: number
}

/** Where a label stands, and in which ink. */
export type LabelSpot = Spot & {
  color: string
  halo: boolean
  leader?: Leader
  /** Which of the places around its shape this is. */
  side?: number
}

/** From the point to the edge of its label. */
export interface Leader {
  x1: number
  y1: number
  x2: number
  y2: number
}

/** The room of a bar or cell. */
export const boxOf = (batch: Rects, i: number): Box => ({
  x: batch.x[i],
  y: batch.y[i],
  width: batch.width[i],
  height: batch.height[i],
})
/** In the middle of a shape, in an ink that is readable on it. */
export function inBox(
  { width, shape }: LabelItem,
  box: Box,
  batch: Rects,
  room: LabelRoom,
  font: Font,
  theme: Theme,
): LabelSpot | undefined {
  if (!(box.width >= width + 3 && box.height >= font.size + 3)) return undefined
  // Over strokes letters need an edge.
  const bare = (batch.alpha?.[shape] ?? 1) >= 0.8 && !batch.hatched?.[batch.colors[batch.color[shape]]]
  const ink = !bare ? undefined : inkOn(batch.colors[batch.color[shape]], theme)
  const spot: Spot = {
    x: box.x + box.width / 2,
    y: box.y + box.height / 2 + font.size * MIDDLE,
    anchor: 'middle',
  }
  if (!room.isFree(textBox(width, font, spot.x, spot.y, 'middle'), 0)) return undefined
  return { ...spot, color: ink ?? theme.text, halo: ink === undefined }
}

/** How all labels of one set of bars stand: beyond their ends, or in them. */
export type Way = 'outside' | 'inside'

/** The one way in which all labels of bars have room; undefined where neither has for all, so that each has its own. */
export function wayOf(
  items: readonly LabelItem[],
  { batch, at }: LabelJob,
  room: LabelRoom,
  plot: Box,
  font: Font,
  theme: Theme,
): Way | undefined {
  if (at !== 'bar' || batch.kind !== 'rects') return undefined
  // A bar that goes on beyond the plot has no end to stand at, and decides nothing for the others.
  const ended = items.filter(({ shape }) => !goesOn(boxOf(batch, shape), plot))
  const beyond = ended.every(item => {
    const spot = beyondBar(item, batch, font)
    return spot && standsFree(textBox(item.width, font, spot.x, spot.y, spot.anchor), room)
  })
  if (beyond) return 'outside'
  const within = ended.every(item => inBox(item, boxOf(batch, item.shape), batch, room, font, theme))
  return within ? 'inside' : undefined
}

/** Whether a bar ends beyond the plot. */
const goesOn = (box: Box, plot: Box): boolean =>
  box.x < plot.x - 1 ||
  box.y < plot.y - 1 ||
  box.x + box.width > plot.x + plot.width + 1 ||
  box.y + box.height > plot.y + plot.height + 1

/** What is seen of a bar. */
function seen(box: Box, plot: Box): Box {
  const [x, y] = [Math.max(box.x, plot.x), Math.max(box.y, plot.y)]
  const width = Math.min(box.x + box.width, plot.x + plot.width) - x
  const height = Math.min(box.y + box.height, plot.y + plot.height) - y
  return { x, y, width, height }
}

/** Over its neighbours, a label would seem to be theirs. */
const standsFree = (box: Box, room: LabelRoom) => room.isFree(box) && room.isOffBars(box)

/** Beyond the value end of a bar; undefined where it has none. */
function beyondBar({ shape }: LabelItem, batch: Rects, font: Font): Spot | undefined {
  const box = boxOf(batch, shape)
  if (Number.isNaN(box.x + box.y)) return undefined
  const middleX = box.x + box.width / 2
  const middleY = box.y + box.height / 2 + font.size * MIDDLE
  const outside: Record<number, Spot> = {
    1: { x: middleX, y: box.y - GAP, anchor: 'middle' },
    2: { x: box.x + box.width + GAP, y: middleY, anchor: 'start' },
    3: { x: middleX, y: box.y + box.height + GAP + font.size * 0.76, anchor: 'middle' },
    4: { x: box.x - GAP, y: middleY, anchor: 'end' },
  }
  return outside[batch.round[shape]]
}

/** Beyond the end of a bar, else within it; all of them in one way, where that is settled. */
export function atBar(
  item: LabelItem,
  batch: Rects,
  room: LabelRoom,
  plot: Box,
  font: Font,
  theme: Theme,
  way: Way | undefined,
): LabelSpot | undefined {
  const { width, shape } = item
  const box = boxOf(batch, shape)
  if (Number.isNaN(box.x + box.y)) return undefined
  if (goesOn(box, plot)) return inBox(item, seen(box, plot), batch, room, font, theme)
  const spot = beyondBar(item, batch, font)
  if (!spot || way === 'inside') return inBox(item, box, batch, room, font, theme)
  const place = textBox(width, font, spot.x, spot.y, spot.anchor)
  const free = standsFree(place, room)
  if (way === 'outside') return free ? { ...spot, color: theme.text, halo: true } : undefined
  // With an edge always: a label that a line comes to lie under must not change its batch, or it would fade in motion.
  if (free && room.isBare(place)) return { ...spot, color: theme.text, halo: true }
  const inside = inBox(item, box, batch, room, font, theme)
  return inside ?? (free ? { ...spot, color: theme.text, halo: true } : undefined)
}
