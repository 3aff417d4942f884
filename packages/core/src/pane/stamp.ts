import type { Stamp } from '../describe/description.ts'
import { TextBuilder } from '../guide/build.ts'
import type { WordBlock } from '../guide/heading.ts'
import { clean, ellipsis, LINE } from '../guide/text.ts'
import type { HeadingFigures, HeadingWords } from '../resolve/model.ts'
import type { Box, Figures } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'

type Place = Exclude<NonNullable<Exclude<Stamp, string | false>['at']>, 'title'>

/** A stamp beside the title is so many times as large. */
const BESIDE = 1.5
/** The largest share of the width that it takes there. */
const SHARE = 0.45
/** The largest that a stamp in the plot is written, in pixels, and as a share of the plot's height. */
const LARGEST = 48
const INSIDE = 0.15
/** Pixels from the corner of the plot. */
const AWAY = 12

type Words = HeadingWords & { figures: HeadingFigures; stamp?: Stamp }

/** Where a stamp stands: in a corner of the plot, else beside the title. */
export function stampPlace({ stamp }: { stamp?: Stamp }): Place | 'title' {
  return typeof stamp === 'object' ? (stamp.at ?? 'title') : 'title'
}

/** The stamp at the upper right of a chart, on the lines of title and subtitle; its width is that of its words. */
export function stampBeside(
  words: Words,
  box: Box,
  theme: Theme,
  measure: Measure,
): WordBlock & { width: number } {
  const { stampWords, stampNote, figures } = words
  const none = { width: 0, height: 0, batches: [] }
  if (stampPlace(words) !== 'title' || (!stampWords && !stampNote)) return none
  const large = { size: Math.round(theme.sizes.title * BESIDE), weight: 600 } as const
  const small = { size: theme.sizes.subtitle, weight: 400 } as const
  const [x, room] = [box.x + box.width, box.width * SHARE]
  const texts = [
    { id: 'stamp', text: stampWords, font: large, color: theme.muted, figures: figures.stampWords },
    { id: 'stamp/note', text: stampNote, font: small, color: theme.muted, figures: figures.stampNote },
  ]
  let [down, width] = [0, 0]
  const batches = texts.flatMap(({ id, text, font, color, figures }) => {
    if (!text) return []
    const { cut, own } = cutting(figures, room, font, measure)
    down += font.size
    const builder = new TextBuilder(id, { ...font, anchor: 'end' })
    builder.add(cut(text), x, box.y + down * 0.92, color, id, undefined, own)
    down += font.size * (LINE - 1)
    width = Math.max(width, measure(cut(text), font))
    return builder.build()
  })
  return { width, height: down, batches }
}

/** The stamp in a corner of the plot, behind the shapes, with its note under it. */
export function stampInside(words: Words, plot: Box, theme: Theme, measure: Measure): WordBlock['batches'] {
  const { stampWords, stampNote, figures } = words
  const place = stampPlace(words)
  if (place === 'title' || (!stampWords && !stampNote)) return []
  const left = place.endsWith('left')
  const anchor = left ? 'start' : 'end'
  const x = left ? plot.x + AWAY : plot.x + plot.width - AWAY
  const room = plot.width * 0.7
  const small = { size: theme.sizes.subtitle, weight: 400 } as const
  const large = { size: Math.min(LARGEST, plot.height * INSIDE), weight: 600 } as const
  const noted = stampNote && plot.height > 120
  const noteHeight = noted ? small.size * 1.5 : 0
  const top = place.includes('top')
  const baseline = top ? plot.y + AWAY + large.size * 0.8 : plot.y + plot.height - AWAY - noteHeight
  const out: WordBlock['batches'] = []
  if (noted) {
    const { cut, own } = cutting(figures.stampNote, room, small, measure)
    const builder = new TextBuilder('stamp/note', { ...small, anchor })
    builder.add(cut(stampNote), x, baseline + noteHeight, theme.muted, 'note', undefined, own)
    out.push(...builder.build().map(batch => ({ ...batch, halo: theme.background })))
  }
  if (stampWords && large.size >= 14) {
    const { cut, own } = cutting(figures.stampWords, room, large, measure)
    const builder = new TextBuilder('stamp', { ...large, anchor })
    builder.add(cut(stampWords), x, baseline, theme.missing, 'stamp', undefined, own)
    out.push(...builder.build())
  }
  return out
}

/** Words that keep to their room, also while their numbers are on their way. */
function cutting(
  figures: Figures | undefined,
  room: number,
  font: { size: number; weight: 400 | 600 },
  measure: Measure,
): { cut: (text: string) => string; own: Figures | undefined } {
  const cut = (text: string) => ellipsis(clean(text), room, font, measure)
  return { cut, own: figures && { ...figures, write: values => cut(figures.write(values)) } }
}
