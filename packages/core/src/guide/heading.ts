import type { Batch, Figures } from '../scene/scene.ts'
import type { Font, Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { TextBuilder } from './build.ts'
import { LINE, wrap } from './text.ts'

/** A block of words and the height it takes, in pixels. */
export interface WordBlock {
  height: number
  batches: Batch[]
}

/** A line of words, with the numbers in them. */
interface Line {
  line: string
  figures: Figures | undefined
}

/** Title and subtitle from the top left, each at most two lines. */
export function heading(
  words: {
    title?: string
    subtitle?: string
    figures?: { title?: Figures; subtitle?: Figures }
    /** The inks of names that are written in their own. */
    inks?: ReadonlyMap<string, string>
  },
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
  /** A line in pieces, where names in it have inks of their own. */
  const add = (
    builder: TextBuilder,
    font: Font,
    color: string,
    i: number,
    { line, figures }: Line,
    y: number,
  ) => {
    const pieces = words.inks ? piecesOf(line, words.inks) : [{ text: line, ink: undefined }]
    let before = ''
    pieces.forEach(({ text, ink }, p) => {
      const key = p === 0 ? i : `${i} ${p}`
      // Numbers count in a line that is one piece.
      const own = pieces.length === 1 ? figures : undefined
      builder.add(text, x + measure(before, font), y, ink ?? color, key, undefined, own)
      before += text
    })
  }
  let at = y
  titleLines.forEach((line, i) => {
    add(titles, title, theme.text, i, line, at + title.size * 0.92)
    at += title.size * LINE
  })
  subtitleLines.forEach((line, i) => {
    add(subtitles, subtitle, theme.muted, i, line, at + subtitle.size)
    at += subtitle.size * LINE + 1
  })
  return { height: at - y, batches: [...titles.build(), ...subtitles.build()] }
}

/** A line cut where names begin and end that have inks of their own; the longest name that fits is meant. */
function piecesOf(
  line: string,
  inks: ReadonlyMap<string, string>,
): { text: string; ink: string | undefined }[] {
  const names = [...inks.keys()].filter(name => name !== '').sort((a, b) => b.length - a.length)
  const out: { text: string; ink: string | undefined }[] = []
  let plain = ''
  for (let at = 0; at < line.length; ) {
    const name = names.find(name => line.startsWith(name, at) && isWord(line, at, name.length))
    if (name === undefined) {
      plain += line[at++]
      continue
    }
    if (plain !== '') out.push({ text: plain, ink: undefined })
    plain = ''
    out.push({ text: name, ink: inks.get(name) })
    at += name.length
  }
  if (plain !== '' || out.length === 0) out.push({ text: plain, ink: undefined })
  return out
}

/** Whether no letter stands before or after a stretch of a line. */
const isWord = (line: string, from: number, length: number): boolean =>
  !/[\p{L}\p{N}]$/u.test(line.slice(0, from)) && !/^[\p{L}\p{N}]/u.test(line.slice(from + length))

/** The lines of words, each with the numbers of them all: with others, it is what stands in its place then. */
function linesOf(
  words: string | undefined,
  figures: Figures | undefined,
  wrapped: (text: string) => string[],
): Line[] {
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
