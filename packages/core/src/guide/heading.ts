import type { Batch } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { TextBuilder } from './build.ts'
import { LINE, wrap } from './text.ts'

/** A block of words and the height it takes, in pixels. */
export interface WordBlock {
  height: number
  batches: Batch[]
}

/** Title and subtitle from the top left, each at most two lines. */
export function heading(
  words: { title?: string; subtitle?: string },
  x: number,
  y: number,
  width: number,
  theme: Theme,
  measure: Measure,
): WordBlock {
  const title = { size: theme.sizes.title, weight: 600 } as const
  const subtitle = { size: theme.sizes.subtitle, weight: 400 } as const
  const titleLines = words.title ? wrap(words.title, width, title, measure, 2) : []
  const subtitleLines = words.subtitle ? wrap(words.subtitle, width, subtitle, measure, 2) : []
  const titles = new TextBuilder('title', { ...title, anchor: 'start' })
  const subtitles = new TextBuilder('subtitle', { ...subtitle, anchor: 'start' })
  let at = y
  titleLines.forEach((line, i) => {
    titles.add(line, x, at + title.size * 0.92, theme.text, i)
    at += title.size * LINE
  })
  subtitleLines.forEach((line, i) => {
    subtitles.add(line, x, at + subtitle.size, theme.muted, i)
    at += subtitle.size * LINE + 1
  })
  return { height: at - y, batches: [...titles.build(), ...subtitles.build()] }
}

/** Caption and source, under everything else. `bottom` is the lower edge. */
export function footing(
  words: { caption?: string; source?: string },
  x: number,
  bottom: number,
  width: number,
  theme: Theme,
  measure: Measure,
): WordBlock {
  const font = { size: theme.sizes.caption, weight: 400 } as const
  const lines = [
    ...(words.caption ? wrap(words.caption, width, font, measure, 3) : []),
    ...(words.source ? wrap(words.source, width, font, measure, 2) : []),
  ]
  const builder = new TextBuilder('caption', { ...font, anchor: 'start' })
  const height = lines.length * font.size * LINE
  lines.forEach((line, i) => {
    builder.add(line, x, bottom - height + i * font.size * LINE + font.size, theme.muted, i)
  })
  return { height, batches: builder.build() }
}
