import { TextBuilder } from '../guide/build.ts'
import { clean, ellipsis } from '../guide/text.ts'
import type { HeadingFigures, HeadingWords } from '../resolve/model.ts'
import type { Batch, Box } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'

/** The largest that a period is written, in pixels, and as a share of the plot's height. */
const LARGEST = 64
const SHARE = 0.18
/** Pixels from the corner of the plot. */
const AWAY = 12

/** The period that is shown, large in the lower right corner behind the shapes, with its summary under it. */
export function periodWords(
  { period, summary, figures }: HeadingWords & { figures: HeadingFigures },
  plot: Box,
  theme: Theme,
  measure: Measure,
): Batch[] {
  if (!period && !summary) return []
  const right = plot.x + plot.width - AWAY
  let bottom = plot.y + plot.height - AWAY
  const out: Batch[] = []
  const room = plot.width * 0.7
  if (summary && plot.height > 120) {
    const font = { size: theme.sizes.subtitle, weight: 400 } as const
    const words = new TextBuilder('period/summary', { ...font, anchor: 'end' })
    const cut = (text: string) => ellipsis(clean(text), room, font, measure)
    const own = figures.summary && {
      ...figures.summary,
      write: (values: readonly number[]) => cut(figures.summary!.write(values)),
    }
    words.add(cut(summary), right, bottom, theme.muted, 'summary', undefined, own)
    out.push(...words.build().map(batch => ({ ...batch, halo: theme.background })))
    bottom -= font.size * 1.5
  }
  const size = Math.min(LARGEST, plot.height * SHARE)
  if (period && size >= 14) {
    const font = { size, weight: 600 } as const
    const words = new TextBuilder('period', { ...font, anchor: 'end' })
    words.add(ellipsis(clean(period), room, font, measure), right, bottom, theme.missing, 'period')
    out.push(...words.build())
  }
  return out
}
