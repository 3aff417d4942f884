import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import { boxes, TextBuilder } from './build.ts'
import type { GuideBlock } from './legend.ts'
import { ellipsis } from './text.ts'

/** A colour scale as a legend shows it. */
export interface RampEntry {
  title: string
  /** Colours from least to greatest. */
  colors: readonly string[]
  /** Labels at the ends, or at every edge of a stepped scale. */
  labels: readonly string[]
}

const WIDTH = 180
const HEIGHT = 8

/** What is coloured, a band of its colours, and the values at its ends or steps under it. */
export function rampLegend(
  entry: RampEntry,
  x: number,
  y: number,
  width: number,
  theme: Theme,
  measure: Measure,
): GuideBlock {
  const font = { size: theme.sizes.text, weight: 400 } as const
  const title = ellipsis(entry.title, width * 0.45, font, measure)
  const words = new TextBuilder('legend/ramp title', { ...font, anchor: 'start' })
  words.add(title, x, y + font.size, theme.muted)
  const left = x + measure(title, font) + 16
  const band = Math.max(40, Math.min(WIDTH, width - (left - x) - 20))
  const step = band / entry.colors.length
  const shades = entry.colors.map((color, i) => ({
    x: left + i * step,
    y: y + 3,
    width: step + (i < entry.colors.length - 1 ? 0.5 : 0),
    height: HEIGHT,
    color,
    key: i,
  }))
  const labels = new TextBuilder('legend/ramp labels', {
    ...font,
    size: theme.sizes.caption,
    anchor: 'middle',
  })
  let end = Number.NEGATIVE_INFINITY
  entry.labels.forEach((label, i) => {
    const at = left + (band * i) / Math.max(1, entry.labels.length - 1)
    const half = measure(label, { ...font, size: theme.sizes.caption }) / 2
    // Ends are always named; what lies between only where it fits.
    const last = i === entry.labels.length - 1
    const room =
      last ||
      at + half + 6 <
        left +
          band -
          measure(entry.labels[entry.labels.length - 1], { ...font, size: theme.sizes.caption }) / 2
    if (at - half < end + 6 || !room) return
    labels.add(label, at, y + HEIGHT + 3 + theme.sizes.caption + 2, theme.muted, i)
    end = at + half
  })
  return {
    width: left + band + 20 - x,
    height: HEIGHT + theme.sizes.caption + 12,
    batches: [...words.build(), ...boxes('legend/ramp', shades), ...labels.build()],
  }
}
