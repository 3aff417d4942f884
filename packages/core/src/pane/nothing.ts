import type { Bound } from '../bind/model.ts'
import { TextBuilder } from '../guide/build.ts'
import { LINE, wrap } from '../guide/text.ts'
import type { Batch, Box } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { lackOf } from './summary.ts'

/** What a plot without shapes says. */
export function nothing(bound: Bound, plot: Box, theme: Theme, measure: Measure): Batch[] {
  const lack = lackOf(bound)
  const usual = bound.tongue.say(lack ?? 'Nothing to show')
  // What was found is said in English, so only where nothing else is spoken.
  const told =
    usual === 'Nothing to show' &&
    bound.findings.find(({ code }) => code === 'no-rows' || code === 'nothing-to-share')?.message
  const text = told || usual
  const font = { size: theme.sizes.subtitle, weight: 400 } as const
  const builder = new TextBuilder('nothing', { ...font, anchor: 'middle' })
  wrap(text, plot.width - 20, font, measure, 3).forEach((line, i, lines) => {
    builder.add(
      line,
      plot.x + plot.width / 2,
      plot.y + plot.height / 2 + (i - (lines.length - 1) / 2) * font.size * LINE,
      theme.muted,
      i,
    )
  })
  return builder.build()
}
