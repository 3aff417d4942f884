import type { Bound, LegendSeries } from '../bind/model.ts'
import type { Legend, LegendPlace, Settled } from '../describe/description.ts'
import { boxes } from '../guide/build.ts'
import { endNamesWidth, NAME_STEP } from '../guide/end-names.ts'
import { type GuideBlock, legend } from '../guide/legend.ts'
import { rampLegend } from '../guide/ramp-legend.ts'
import { sizeLegend } from '../guide/size-legend.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { meaningKey } from '../table/phrase/meaning.ts'
import type { Theme } from '../theme/theme.ts'
import type { NeededNames, PaneInput, PlannedAxis } from './model.ts'

/** What a legend explains. */
export type LegendRole = 'color' | 'size' | 'shape' | 'dash'

/** A legend with its place, ready to be laid out in whatever room there is. */
export interface PlannedLegend {
  role: LegendRole
  at: Exclude<LegendPlace, 'auto' | 'ends'>
  align?: 'start' | 'middle' | 'end'
  lay(x: number, y: number, width: number, height: number): GuideBlock
}

/** Pixels between two legends under each other. */
export const BETWEEN_LEGENDS = 6

/** A legend above or below plots, where along them it is wished for. */
export function layAligned(
  { lay, align = 'start' }: PlannedLegend,
  x: number,
  y: number,
  width: number,
  height: number,
): GuideBlock {
  const block = lay(x, y, width, height)
  const free = Math.max(0, width - block.width)
  return align === 'start' ? block : lay(x + (align === 'middle' ? free / 2 : free), y, width, height)
}

/** Every legend of a chart, and whether the names of lines stand at their ends instead. */
export interface Legends {
  list: PlannedLegend[]
  /** The names at line ends, and the room they take beside the plot; undefined for none. */
  ends: { entries: readonly LegendSeries[]; width: number } | undefined
  needed: NeededNames[]
  /** Whether sizes are to be explained. */
  sizes: boolean
}

/** From this width on there is room for names beside the plot, in pixels. */
const WIDE = 520
/** More names than these are a list, and stand better together. */
const MOST_AT_ENDS = 8

interface Wish {
  at: LegendPlace | false
  columns?: number
  title?: string
  align?: PlannedLegend['align']
}

/** What the description wishes for a role's legend. */
function wishOf({ legend: wish }: Settled, role: LegendRole): Wish {
  const read = (legend: Legend | undefined): Wish =>
    legend === false
      ? { at: false }
      : typeof legend === 'object'
        ? { ...legend, at: legend.at ?? 'auto' }
        : { at: legend ?? 'auto' }
  const byRole =
    typeof wish === 'object' && ['color', 'size', 'shape', 'dash'].some(name => Object.hasOwn(wish, name))
  return read(byRole ? (wish as Record<string, Legend>)[role] : (wish as Legend | undefined))
}

/** Whether a list of names was asked for, by its place or its looks, so that they must not stand elsewhere instead. */
export const isPlaced = (description: Settled): boolean => isList(wishOf(description, 'color'))

const isList = ({ at, columns, title }: Wish): boolean =>
  at !== false && ((at !== 'auto' && at !== 'ends') || columns !== undefined || title !== undefined)

/** What legends are planned from. */
export interface LegendContext
  extends Pick<PaneInput, 'description' | 'bound' | 'box' | 'theme' | 'measure' | 'listedFrom'> {
  axes: readonly PlannedAxis[]
  tiny: boolean
  /** Whether names stand at the shapes themselves. */
  named: boolean
  /** The radius of the largest point, in pixels. */
  largest: number
  /** Whether it stands apart from the plots that it explains. */
  apart?: boolean
}

/** Decides which legends a chart needs, and where they stand. `named`: names are at the shapes already. */
export function planLegends({
  description,
  bound,
  axes,
  box,
  tiny,
  named,
  largest,
  apart,
  listedFrom = 0,
  theme,
  measure,
}: LegendContext): Legends {
  const sizeWish = wishOf(description, 'size')
  const out: Legends = { list: [], ends: undefined, needed: [], sizes: sizeWish.at !== false }
  const groups = (['color', 'shape', 'dash'] as const)
    .map(role => ({ role, entries: bound.legend.filter(entry => (entry.by ?? 'color') === role) }))
    // One name of a column says what is shown; that of a measure stands over its axis.
    .filter(({ entries }) => entries.length > 1 || entries.some(({ title }) => title !== ''))
  // One that is asked for stands there, also where it repeats an axis.
  const asked = isPlaced(description)
  const needed = groups.filter(({ role }) => role !== 'color' || asked || needsNames(bound, named))
  for (const { role, entries } of needed) {
    const wish = wishOf(description, role)
    if (wish.at === false) continue
    const id = role === 'color' ? 'legend' : `legend/${role}`
    out.needed.push({ ids: [`${id}/names`, 'ends/names'], entries })
    if (tiny) continue
    if (role === 'color' && !apart && endsSuit(wish, bound, entries, axes, box)) {
      out.ends = { entries, width: endNamesWidth(entries, theme, measure) }
      continue
    }
    const at = placeOf(wish.at)
    const beside = at === 'left' || at === 'right' || at.startsWith('inside')
    // Several legends must say what each is about.
    const title = wish.title ?? (needed.length > 1 ? entries[0].title : undefined)
    const list = {
      id,
      entries,
      title,
      columns: wish.columns ?? (beside ? 1 : undefined),
      from: role === 'color' ? Math.min(listedFrom, entries.length - 1) : 0,
      more: (count: number) => bound.tongue.say('and {count} more', { count }),
    }
    out.list.push({
      role,
      at,
      align: wish.align,
      lay: (x, y, width, height) => legend(list, x, y, width, height, theme, measure),
    })
  }
  if (tiny) return out
  const { ramp, sizes } = bound
  const rampWish = wishOf(description, 'color')
  if (ramp && rampWish.at !== false) {
    const entry = rampWish.title === undefined ? ramp : { ...ramp, title: rampWish.title }
    out.list.push({
      role: 'color',
      at: placeOf(rampWish.at),
      align: rampWish.align,
      lay: (x, y, width) => rampLegend(entry, x, y, width, theme, measure),
    })
  }
  if (sizes && sizeWish.at !== false) {
    const entry = sizeWish.title === undefined ? sizes : { ...sizes, title: sizeWish.title }
    out.list.push({
      role: 'size',
      at: placeOf(sizeWish.at),
      align: sizeWish.align,
      lay: (x, y, width) => sizeLegend(entry, largest, x, y, width, theme, measure),
    })
  }
  return out
}

const placeOf = (at: LegendPlace): PlannedLegend['at'] => (at === 'auto' || at === 'ends' ? 'top' : at)

/** Whether names stand at the ends of lines: where they are lines with room beside the plot. */
function endsSuit(
  wish: Wish,
  bound: Bound,
  entries: readonly LegendSeries[],
  axes: readonly PlannedAxis[],
  box: Box,
): boolean {
  if (isList(wish) || bound.ramp || !bound.byName) return false
  const lines = bound.legend.every(entry => entry.swatch === 'line')
  const free = !axes.some(axis => axis.look.side === 'right' && !axis.hidden)
  if (!lines || !free || entries.length * NAME_STEP > box.height * 0.6) return false
  return wish.at === 'ends' || (box.width >= WIDE && entries.length <= MOST_AT_ENDS)
}

/** A legend would repeat the axis when each series stands at its own category, or the names that stand at the shapes. */
function needsNames(bound: Bound, named: boolean): boolean {
  if (named) return false
  const drawn = bound.drawings.filter(drawn => !drawn.drawing.kind.aside)
  return !(drawn.length > 0 ? drawn : bound.drawings).every(drawn => {
    if (drawn.drawing.kind.parts) return false
    const color = drawn.drawing.roles.get('color') ?? drawn.drawing.roles.get('series')
    if (!color) return false
    const { roles } = drawn.drawing
    return ['x', 'y'].some(role => roles.has(role) && meaningKey(roles.get(role)!) === meaningKey(color))
  })
}

/** Room between the plot and a legend beside it, in pixels. */
const BESIDE = 20
/** The largest share of the width that a legend beside the plot takes. */
const SIDE = 0.35
/** Room around and inside the ground of a legend within the plot, in pixels. */
const PADDING = 8

/** The room that the legends on one side take, in pixels. */
export function sideWidth({ list }: Legends, side: 'left' | 'right', box: Box): number {
  const own = list.filter(legend => legend.at === side)
  if (own.length === 0) return 0
  const most = box.width * SIDE
  return Math.min(most, Math.max(...own.map(legend => legend.lay(0, 0, most, box.height).width)) + BESIDE)
}

/** The legends to the left and right of the plot, under each other from its upper edge. */
export function besideLegends(legends: Legends, box: Box, plot: Box): Batch[] {
  return (['left', 'right'] as const).flatMap(side => {
    const width = sideWidth(legends, side, box) - BESIDE
    const x = side === 'left' ? box.x : box.x + box.width - width
    return stack(legends, side, x, plot.y, width, plot.height)
  })
}

function stack(
  { list }: Legends,
  at: PlannedLegend['at'],
  x: number,
  y: number,
  width: number,
  height: number,
): Batch[] {
  let down = 0
  const out: Batch[] = []
  for (const legend of list) {
    if (legend.at !== at || height - down < 24) continue
    const block = legend.lay(x, y + down, width, height - down)
    out.push(...block.batches)
    down += block.height + PADDING
  }
  return out
}

/** Legends in corners of the plot, on a ground that parts them from the shapes. */
export function legendsInside({ list }: Legends, plot: Box, theme: Theme): Batch[] {
  const corners = [...new Set(list.map(legend => legend.at).filter(at => at.startsWith('inside')))]
  return corners.flatMap(corner => {
    const own = list.filter(legend => legend.at === corner)
    const most = plot.width * 0.5 - PADDING * 4
    const room = plot.height - PADDING * 4
    if (most < 40 || room < 24) return []
    const blocks = own.map(legend => legend.lay(0, 0, most, room))
    const width = Math.max(...blocks.map(block => block.width))
    const height = blocks.reduce((sum, block) => sum + block.height, 0)
    if (height > plot.height) return []
    const ground = { width: width + PADDING * 2, height: height + PADDING * 1.5 }
    const x = corner.endsWith('left') ? plot.x + PADDING : plot.x + plot.width - PADDING - ground.width
    const y = corner.includes('top') ? plot.y + PADDING : plot.y + plot.height - PADDING - ground.height
    const [panel] = boxes(`${corner}/ground`, [{ x, y, ...ground, color: theme.background, key: 'ground' }])
    let down = y + PADDING
    const shapes = own.flatMap((legend, i) => {
      const block = legend.lay(x + PADDING, down, most, room)
      down += blocks[i].height
      return block.batches
    })
    return [{ ...panel, alpha: Float32Array.of(0.86) }, ...shapes]
  })
}
