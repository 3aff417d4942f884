import type { Measure } from '../theme/text-width.ts'
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
/** The narrowest a band may be, in pixels. */
const NARROWEST = 40
const GAP = 16

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
  const small = { ...font, size: theme.sizes.caption }
  const halfOf = (label: string) => measure(label, small) / 2
  // The labels of the ends hang over the band by their halves.
  const [before, after] = [entry.labels[0] ?? '', entry.labels.at(-1) ?? ''].map(halfOf)
  const beside = Math.max(20, after)
  const most = Math.min(width * 0.45, width - GAP - NARROWEST - beside)
  const title = ellipsis(entry.title, most, font, measure)
  const words = new TextBuilder('legend/ramp title', { ...font, anchor: 'start' })
  words.add(title, x, y + font.size, theme.muted)
  const left = x + Math.max(before, measure(title, font) + GAP)
  const band = Math.max(NARROWEST, Math.min(WIDTH, width - (left - x) - beside))
  const step = band / entry.colors.length
  const shades = entry.colors.map((color, i) => ({
    x: left + i * step,
    y: y + 3,
    width: step + (i < entry.colors.length - 1 ? 0.5 : 0),
    height: HEIGHT,
    color,
    key: i,
  }))
  const labels = new TextBuilder('legend/ramp labels', { ...small, anchor: 'middle' })
  let end = Number.NEGATIVE_INFINITY
  entry.labels.forEach((label, i) => {
    const at = left + (band * i) / Math.max(1, entry.labels.length - 1)
    const half = halfOf(label)
    // The ends are named; what lies between only where it fits.
    const last = i === entry.labels.length - 1
    const room = last || at + half + 6 < left + band - after
    if (at - half < end + 6 || !room) return
    labels.add(label, at, y + HEIGHT + 3 + theme.sizes.caption + 2, theme.muted, i)
    end = at + half
  })
  return {
    width: left + band + beside - x,
    height: HEIGHT + theme.sizes.caption + 12,
    batches: [...words.build(), ...boxes('legend/ramp', shades), ...labels.build()],
  }
}
