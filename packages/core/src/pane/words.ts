import type { Bound } from '../bind/model.ts'
import { TextBuilder } from '../guide/build.ts'
import { footing, heading, type WordBlock } from '../guide/heading.ts'
import type { GuideBlock } from '../guide/legend.ts'
import { ellipsis, LINE } from '../guide/text.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { readableInk } from '../theme/contrast.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { BETWEEN_LEGENDS, layAligned, type PlannedLegend } from './legends.ts'
import type { PaneInput, PlannedAxis } from './model.ts'
import { stampBeside } from './stamp.ts'

/** The words of a chart, placed, and the room that they leave. */
export interface PlacedWords {
  batches: Batch[]
  /** Between these heights axes and plot have their place. */
  top: number
  bottom: number
  /** Whether there is room for titles of horizontal axes. */
  levelTitles: boolean
}

/** Words give way to the shapes where there is too little room for both: the least important first. */
const GIVING_WAY = ['foot', 'sizes', 'legend', 'subtitle', 'levelTitles', 'titles', 'title'] as const
/** The shares of the height that a list of names may take: it is shortened before it gives way. */
const LEGEND_SHARES = [0.3, 0.2, 0.12]

/** Pixels between a title and a stamp. */
const BESIDE_STAMP = 20

/** What words around the plot are placed from; `inner`: what legends beside the plot leave of the box. */
export interface WordsContext
  extends Pick<PaneInput, 'description' | 'bound' | 'figures' | 'box' | 'theme' | 'measure'> {
  legends: readonly PlannedLegend[]
  axes: readonly PlannedAxis[]
  inner: Box
  tiny: boolean
}

/** Places title, subtitle, legends above and below, axis titles, caption and source in a box; `inner`: what legends beside the plot leave. */
export function placeWords({
  description,
  bound,
  figures,
  legends,
  axes,
  box,
  inner,
  tiny,
  theme,
  measure,
}: WordsContext): PlacedWords {
  const { x, width } = box
  const font = { size: theme.sizes.text, weight: 400 } as const
  const shown = new Set<string>(tiny ? [] : GIVING_WAY)
  const upright = axes.filter(axis => axis.role === 'y' && axis.title !== '' && !axis.hidden)
  const level = axes.some(axis => axis.role === 'x' && axis.title !== '' && !axis.hidden)
  const rows = Math.max(
    upright.filter(axis => axis.look.side === 'right').length,
    upright.filter(axis => axis.look.side !== 'right').length,
  )
  const stamp = tiny
    ? { width: 0, height: 0, batches: [] }
    : stampBeside({ ...description, figures }, box, theme, measure)
  const head = (y: number): WordBlock => {
    const block = heading(
      {
        title: shown.has('title') ? description.title : undefined,
        subtitle: shown.has('subtitle') ? description.subtitle : undefined,
        figures,
        inks: description.colorNames ? inksOf(bound, theme) : undefined,
      },
      x,
      y,
      stamp.width > 0 ? width - stamp.width - BESIDE_STAMP : width,
      theme,
      measure,
    )
    return shown.has('title')
      ? { height: Math.max(block.height, stamp.height), batches: [...block.batches, ...stamp.batches] }
      : block
  }
  const foot = (): WordBlock =>
    shown.has('foot')
      ? footing(
          { caption: description.caption, source: description.source, figures },
          x,
          box.y + box.height + 4,
          width,
          theme,
          measure,
        )
      : { height: 0, batches: [] }
  const legendsAt = (at: 'top' | 'bottom', y: number): GuideBlock => {
    let down = 0
    const batches: Batch[] = []
    for (const legend of legends) {
      if (legend.at !== at) continue
      if (legend.role === 'size' && !shown.has('sizes')) continue
      const block = layAligned(legend, inner.x, y + down, inner.width, box.height * legendShare)
      batches.push(...block.batches)
      down += block.height + BETWEEN_LEGENDS
    }
    return { width: inner.width, height: down > 0 ? down + 6 - BETWEEN_LEGENDS : 0, batches }
  }
  let [legendShare] = LEGEND_SHARES
  const titlesHeight = rows * font.size * LINE + 12

  const heightOf = () => {
    const words = head(0).height
    return (
      (words > 0 ? words + 8 : 0) +
      (shown.has('legend') ? legendsAt('top', 0).height + legendsAt('bottom', 0).height : 0) +
      (foot().height > 0 ? foot().height + 6 : 0) +
      (shown.has('titles') && rows > 0 ? titlesHeight : 6) +
      (shown.has('levelTitles') && level ? font.size * LINE + 4 : 0)
    )
  }
  const least = Math.min(180, box.height * 0.5)
  const fits = () => box.height - heightOf() >= least
  for (const part of GIVING_WAY) {
    if (part === 'sizes') for (const share of LEGEND_SHARES) if (!fits()) legendShare = share
    if (fits()) break
    shown.delete(part)
  }

  const batches: Batch[] = []
  let top = box.y
  const words = head(top)
  batches.push(...words.batches)
  if (words.height > 0) top += words.height + 8
  if (shown.has('legend')) {
    const block = legendsAt('top', top)
    batches.push(...block.batches)
    top += block.height
  }
  if (shown.has('titles') && rows > 0) {
    batches.push(...axisTitles(upright, inner.x, top, inner.width, theme, measure))
    top += titlesHeight
  } else top += tiny ? 2 : 6
  const feet = foot()
  batches.push(...feet.batches)
  let bottom = box.y + box.height - (feet.height > 0 ? feet.height + 6 : 0)
  if (shown.has('legend')) {
    const { height } = legendsAt('bottom', 0)
    if (height > 0) batches.push(...legendsAt('bottom', bottom - height + 6).batches)
    bottom -= height
  }
  return {
    batches,
    top,
    bottom,
    levelTitles: shown.has('levelTitles'),
  }
}

/** The inks of series in words: their colours, as much stronger as reading them asks. */
const inksOf = ({ legend }: Bound, theme: Theme): Map<string, string> =>
  new Map(legend.map(({ name, color }) => [name, readableInk(color, theme)]))

/** Titles of vertical axes stand upright above their axis, in lines where a side has several. */
export function axisTitles(
  axes: readonly PlannedAxis[],
  x: number,
  top: number,
  width: number,
  theme: Theme,
  measure: Measure,
): Batch[] {
  const font = { size: theme.sizes.text, weight: 400 } as const
  const left = new TextBuilder('axis titles', { ...font, anchor: 'start' })
  const right = new TextBuilder('axis titles right', { ...font, anchor: 'end' })
  const both = axes.some(axis => axis.look.side === 'right') && axes.some(axis => axis.look.side !== 'right')
  const room = both ? width / 2 - 8 : width
  const rows = { left: 0, right: 0 }
  for (const axis of axes) {
    const onRight = axis.look.side === 'right'
    const row = onRight ? rows.right++ : rows.left++
    const baseline = top + font.size + row * font.size * LINE
    const text = ellipsis(axis.title, room, font, measure)
    if (onRight) right.add(text, x + width, baseline, theme.muted, axis.name)
    else left.add(text, x, baseline, theme.muted, axis.name)
  }
  return [...left.build(), ...right.build()]
}
