import type { Batch, Box } from '../scene/scene.ts'
import type { Theme } from '../theme/theme.ts'
import type { AxisInput, AxisLayout } from './axis.ts'
import { LABEL_GAP } from './axis.ts'
import { segments, TextBuilder } from './build.ts'
import { LINE } from './text.ts'

/** Gridlines, behind the data. */
export function gridShapes(axis: AxisLayout, side: AxisInput['side'], plot: Box, theme: Theme): Batch[] {
  const level = side === 'bottom' || side === 'top'
  const { name } = axis.scale
  const along = level ? { x: name } : { y: name }
  const lineAt = (value: number) => {
    const pixel = axis.scale.map(value)
    return level
      ? { x1: pixel, y1: plot.y, x2: pixel, y2: plot.y + plot.height, key: value, at: value }
      : { x1: plot.x, y1: pixel, x2: plot.x + plot.width, y2: pixel, key: value, at: value }
  }
  return segments(`grid ${name}`, axis.ticks.filter(value => !isZero(axis, value)).map(lineAt), {
    color: theme.hairline,
    width: 1,
    along,
  })
}

/** The line at zero, or at the foot of a category or time axis: a little darker than the grid, above area fills. */
export function zeroShapes(axis: AxisLayout, side: AxisInput['side'], plot: Box, theme: Theme): Batch[] {
  const level = side === 'bottom' || side === 'top'
  const { name, domain, kind } = axis.scale
  if (kind.name === 'category' || kind.name === 'time' || kind.name === 'log') return []
  const low = Math.min(...domain)
  const high = Math.max(...domain)
  if (low > 0 || high < 0) return []
  const pixel = axis.scale.map(0)
  const line = level
    ? { x1: pixel, y1: plot.y, x2: pixel, y2: plot.y + plot.height, key: 0, at: 0 }
    : { x1: plot.x, y1: pixel, x2: plot.x + plot.width, y2: pixel, key: 0, at: 0 }
  return segments(`zero ${name}`, [line], {
    color: theme.strong,
    width: 1,
    along: level ? { x: name } : { y: name },
  })
}

const isZero = (axis: AxisLayout, value: number) =>
  value === 0 && axis.scale.kind.name !== 'category' && axis.scale.kind.name !== 'time'

/** Labels of ticks and, for time, of the larger unit. */
export function labelShapes(axis: AxisLayout, side: AxisInput['side'], plot: Box, theme: Theme): Batch[] {
  const { size } = { size: theme.sizes.text }
  const { name } = axis.scale
  const level = side === 'bottom' || side === 'top'
  const along = level ? { x: name } : { y: name }
  const anchor = axis.turn !== 0 ? 'end' : level ? 'middle' : side === 'left' ? 'end' : 'start'
  const labels = new TextBuilder(`axis ${name}/labels`, { size, weight: 400, anchor, turn: axis.turn, along })
  const larger = new TextBuilder(`axis ${name}/larger`, { size, weight: 600, anchor: 'middle', along })
  const down = plot.y + plot.height + LABEL_GAP
  axis.ticks.forEach((value, i) => {
    const pixel = axis.scale.map(axis.labelAt[i])
    const lines = axis.labels[i]
    lines.forEach((text, row) => {
      const key = lines.length > 1 ? `${value} ${row}` : value
      if (axis.turn !== 0)
        labels.add(text, pixel + size * 0.3, down + size * 0.6, theme.muted, key, axis.labelAt[i])
      else if (side === 'bottom')
        labels.add(text, pixel, down + size * 0.85 + row * size * LINE, theme.muted, key, axis.labelAt[i])
      else if (side === 'top')
        labels.add(
          text,
          pixel,
          plot.y - LABEL_GAP - (lines.length - 1 - row) * size * LINE,
          theme.muted,
          key,
          axis.labelAt[i],
        )
      else {
        const x = side === 'left' ? plot.x - LABEL_GAP : plot.x + plot.width + LABEL_GAP
        labels.add(
          text,
          x,
          pixel + size * 0.36 + (row - (lines.length - 1) / 2) * size * LINE,
          theme.muted,
          key,
          axis.labelAt[i],
        )
      }
    })
    if (axis.larger[i])
      larger.add(axis.larger[i], pixel, down + size * 0.85 + size * LINE, theme.text, value, axis.labelAt[i])
  })
  return [...labels.build(), ...larger.build()]
}
