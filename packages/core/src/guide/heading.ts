import type { Batch, Figures } from '../scene/scene.ts'
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
  words: { title?: string; subtitle?: string; figures?: { title?: Figures; subtitle?: Figures } },
  x: number,
  y: number,
  width: number,
  theme: Theme,
  measure: Measure,
): WordBlock {
  const title = { size: theme.sizes.title, weight: 600 } as const
  const subtitle = { size: theme.sizes.subtitle, weight: 400 } as const
  const { figures } = words
  const titleLines = linesOf(words.title, figures?.title, text => wrap(text, width, title, measure, 2))
  const subtitleLines = linesOf(words.subtitle, figures?.subtitle, text =>
    wrap(text, width, subtitle, measure, 2),
  )
  const titles = new TextBuilder('title', { ...title, anchor: 'start' })
  const subtitles = new TextBuilder('subtitle', { ...subtitle, anchor: 'start' })
  let at = y
  titleLines.forEach(({ line, figures }, i) => {
    titles.add(line, x, at + title.size * 0.92, theme.text, i, undefined, figures)
    at += title.size * LINE
  })
  subtitleLines.forEach(({ line, figures }, i) => {
    subtitles.add(line, x, at + subtitle.size, theme.muted, i, undefined, figures)
    at += subtitle.size * LINE + 1
  })
  return { height: at - y, batches: [...titles.build(), ...subtitles.build()] }
}

/** The lines of words, each with the numbers of them all: with others, it is what stands in its place then. */
function linesOf(
  words: string | undefined,
  figures: Figures | undefined,
  wrapped: (text: string) => string[],
): { line: string; figures: Figures | undefined }[] {
  if (!words) return []
  return wrapped(words).map((line, i) => ({
    line,
    figures: figures && {
      values: figures.values,
      write: values => wrapped(figures.write(values))[i] ?? '',
    },
  }))
}

/** Caption and source, under everything else. `bottom` is the lower edge. */
export function footing(
  words: { caption?: string; source?: string; figures?: { caption?: Figures; source?: Figures } },
  x: number,
  bottom: number,
  width: number,
  theme: Theme,
  measure: Measure,
): WordBlock {
  const font = { size: theme.sizes.caption, weight: 400 } as const
  const lines = [
    ...linesOf(words.caption, words.figures?.caption, text => wrap(text, width, font, measure, 3)),
    ...linesOf(words.source, words.figures?.source, text => wrap(text, width, font, measure, 2)),
  ]
  const builder = new TextBuilder('caption', { ...font, anchor: 'start' })
  const height = lines.length * font.size * LINE
  lines.forEach(({ line, figures }, i) => {
    const y = bottom - height + i * font.size * LINE + font.size
    builder.add(line, x, y, theme.muted, i, undefined, figures)
  })
  return { height, batches: builder.build() }
}
