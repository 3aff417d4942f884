import { TextBuilder } from '../guide/build.ts'
import { NAME_STEP } from '../guide/end-names.ts'
import { footing, heading, type WordBlock } from '../guide/heading.ts'
import { legend } from '../guide/legend.ts'
import { rampLegend } from '../guide/ramp-legend.ts'
import { ellipsis, LINE } from '../guide/text.ts'
import type { Batch, Box } from '../scene/scene.ts'
import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import type { Bound } from './bind.ts'
import type { Description } from './description.ts'
import type { PlannedAxis } from './plan.ts'

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
const GIVING_WAY = ['foot', 'legend', 'subtitle', 'levelTitles', 'titles', 'title'] as const

/** Places title, subtitle, legend, axis titles, caption and source in a box. */
export function placeWords(
  description: Description,
  bound: Bound,
  axes: readonly PlannedAxis[],
  box: Box,
  tiny: boolean,
  theme: Theme,
  measure: Measure,
  namedAtEnds: boolean,
): PlacedWords {
  const { x, width } = box
  const font = { size: theme.sizes.text, weight: 400 } as const
  const shown = new Set<string>(tiny ? [] : GIVING_WAY)
  const upright = axes.filter(axis => axis.role === 'y' && axis.title !== '' && !axis.hidden)
  const level = axes.some(axis => axis.role === 'x' && axis.title !== '' && !axis.hidden)
  const rows = Math.max(
    upright.filter(axis => axis.look.side === 'right').length,
    upright.filter(axis => axis.look.side !== 'right').length,
  )
  const head = (y: number): WordBlock =>
    heading(
      {
        title: shown.has('title') ? description.title : undefined,
        subtitle: shown.has('subtitle') ? description.subtitle : undefined,
      },
      x,
      y,
      width,
      theme,
      measure,
    )
  const foot = (): WordBlock =>
    shown.has('foot')
      ? footing(
          { caption: description.caption, source: description.source },
          x,
          box.y + box.height + 4,
          width,
          theme,
          measure,
        )
      : { height: 0, batches: [] }
  const wantsLegend =
    !namedAtEnds && description.legend !== false && (needsLegend(bound) || bound.ramp !== undefined)
  const legendTitle = typeof description.legend === 'object' ? description.legend.title : undefined
  const legendAt = (y: number): WordBlock => {
    if (!bound.ramp || !needsLegend(bound))
      return bound.ramp ? rampLegend(bound.ramp, x, y, width, theme, measure) : namesAt(y)
    const names = namesAt(y)
    const ramp = rampLegend(bound.ramp, x, y + names.height, width, theme, measure)
    return { height: names.height + ramp.height, batches: [...names.batches, ...ramp.batches] }
  }
  const namesAt = (y: number) => legend(bound.legend, legendTitle, x, y, width, theme, measure)
  const titlesHeight = rows * font.size * LINE + 12

  const heightOf = () => {
    const words = head(0).height
    return (
      (words > 0 ? words + 8 : 0) +
      (shown.has('legend') && wantsLegend ? legendAt(0).height + 6 : 0) +
      (foot().height > 0 ? foot().height + 6 : 0) +
      (shown.has('titles') && rows > 0 ? titlesHeight : 6) +
      (shown.has('levelTitles') && level ? font.size * LINE + 4 : 0)
    )
  }
  const least = Math.min(180, box.height * 0.5)
  for (const part of GIVING_WAY) {
    if (box.height - heightOf() >= least) break
    shown.delete(part)
  }

  const batches: Batch[] = []
  let top = box.y
  const words = head(top)
  batches.push(...words.batches)
  if (words.height > 0) top += words.height + 8
  if (shown.has('legend') && wantsLegend) {
    const block = legendAt(top)
    batches.push(...block.batches)
    top += block.height + 6
  }
  if (shown.has('titles') && rows > 0) {
    batches.push(...axisTitles(upright, x, top, width, theme, measure))
    top += titlesHeight
  } else top += tiny ? 2 : 6
  const feet = foot()
  batches.push(...feet.batches)
  return {
    batches,
    top,
    bottom: box.y + box.height - (feet.height > 0 ? feet.height + 6 : 0),
    levelTitles: shown.has('levelTitles'),
  }
}

/** Titles of vertical axes stand upright above their axis, in lines where a side has several. */
function axisTitles(
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

/** From this width on there is room for names beside the plot, in pixels. */
const WIDE = 520
/** More names than these are a list, and stand better together. */
const MOST_AT_ENDS = 8

/** Whether the names of series stand at the ends of their lines rather than in a legend. */
export function namesAtEnds(
  description: Description,
  bound: Bound,
  axes: readonly PlannedAxis[],
  box: Box,
  tiny: boolean,
): boolean {
  const { legend: wish } = description
  const at = typeof wish === 'object' ? (wish.at ?? 'auto') : (wish ?? 'auto')
  if (wish === false || at === 'top' || tiny || bound.ramp || !needsLegend(bound)) return false
  const lines = bound.legend.every(entry => entry.swatch === 'line')
  const free = !axes.some(axis => axis.look.side === 'right' && !axis.hidden)
  if (!lines || !free || bound.legend.length * NAME_STEP > box.height * 0.6) return false
  return at === 'ends' || (box.width >= WIDE && bound.legend.length <= MOST_AT_ENDS)
}

/** A legend would repeat the axis when each series stands at its own category. */
function needsLegend(bound: Bound): boolean {
  if (bound.legend.length < 2) return false
  return !bound.drawings.every(one => {
    const color = one.drawing.roles.get('color') ?? one.drawing.roles.get('series')
    if (!color) return false
    return ['x', 'y'].some(role => JSON.stringify(one.drawing.roles.get(role)) === JSON.stringify(color))
  })
}
