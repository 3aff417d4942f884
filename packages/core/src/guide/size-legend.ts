import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { TextBuilder } from './build.ts'
import type { GuideBlock } from './legend.ts'
import { ellipsis, LINE, MIDDLE } from './text.ts'

/** What the areas of points mean: a few values, and the radius of each as a share of the largest. */
export interface SizeEntry {
  title: string
  steps: readonly { text: string; share: number }[]
}

/** Points of a few sizes with the values they stand for. `largest`: the radius of the greatest value, in pixels. */
export function sizeLegend(
  entry: SizeEntry,
  largest: number,
  x: number,
  y: number,
  width: number,
  theme: Theme,
  measure: Measure,
): GuideBlock {
  const font = { size: theme.sizes.text, weight: 400 } as const
  const radii = entry.steps.map(step => step.share * largest)
  const height = Math.max(font.size * LINE, ...radii.map(radius => radius * 2)) + 6
  const middle = y + (height - 6) / 2
  const baseline = middle + font.size * MIDDLE
  const words = new TextBuilder('legend/size', { ...font, anchor: 'start' })
  const title = ellipsis(entry.title, width * 0.4, font, measure)
  words.add(title, x, baseline, theme.muted, 'title')
  let left = x + measure(title, font) + 16
  const discs: { x: number; radius: number }[] = []
  entry.steps.forEach(({ text }, i) => {
    const needed = radii[i] * 2 + 6 + measure(text, font)
    if (left + needed > x + width) return
    discs.push({ x: left + radii[i], radius: radii[i] })
    words.add(text, left + radii[i] * 2 + 6, baseline, theme.text, `size ${i}`)
    left += needed + 16
  })
  return {
    width: left - 16 - x,
    height,
    batches: [
      ...words.build(),
      {
        kind: 'discs',
        id: 'legend/sizes',
        part: 'guide',
        clip: false,
        keys: discs.map((_, i) => i),
        colors: [theme.missing],
        color: new Uint16Array(discs.length),
        x: Float32Array.from(discs, disc => disc.x),
        y: new Float32Array(discs.length).fill(middle),
        radius: Float32Array.from(discs, disc => disc.radius),
      },
    ],
  }
}
