import type { BoundDrawing } from '../../bind/model.ts'
import { lookOf, measureTitle } from '../../bind/naming.ts'
import { labelTexts, shareTexts } from '../../bind/values.ts'
import {
  planSlices,
  ringCentre,
  type SlicePlan,
  type SliceWords,
  sliceLabels,
} from '../../guide/slice-labels.ts'
import { briefText } from '../../scale/number-format.ts'
import type { Batch, Box, Wedges } from '../../scene/scene.ts'
import type { Measure } from '../../theme/text-width.ts'
import type { Theme } from '../../theme/theme.ts'
import type { Tongue } from '../../words/tongue.ts'

/** The words at each slice: its name, and its share of the whole unless the description says what. */
export function sliceWords(bound: BoundDrawing, locale: string): (mark: number) => SliceWords {
  const { marks, drawing } = bound
  const labels = labelTexts(bound, locale, () => ({}))
  const shares = shareTexts(marks.y.at, locale)
  return mark => ({
    name: marks.series[marks.seriesOf?.[mark] ?? 0].name,
    value: drawing.wordless ? '' : labels ? labels(mark) : shares[mark],
  })
}

/** Where the words of a pie's slices stand. */
export function planPie(
  bound: BoundDrawing,
  { width, height }: Pick<Box, 'width' | 'height'>,
  locale: string,
  theme: Theme,
  measure: Measure,
): SlicePlan {
  const words = sliceWords(bound, locale)
  const list: SliceWords[] = []
  for (let mark = 0; mark < bound.marks.length; mark++) if (bound.marks.y.at[mark] > 0) list.push(words(mark))
  return planSlices(bound.drawing.wordless ? [] : list, width, height, theme, measure)
}

/** The words at the slices of a pie, and the whole in the middle of a ring. */
export function pieLabels(
  bound: BoundDrawing,
  wedges: Wedges,
  plan: SlicePlan,
  plot: Box,
  tongue: Tongue,
  theme: Theme,
  measure: Measure,
): Batch[] {
  if (wedges.x.length === 0) return []
  const id = `drawing ${bound.drawing.index}`
  const markOf = new Map<string | number, number>()
  for (let mark = 0; mark < bound.marks.length; mark++) markOf.set(bound.marks.keyOf(mark), mark)
  const words = sliceWords(bound, tongue.locale)
  const list = Array.from(wedges.keys, key => words(markOf.get(key)!))
  const { meaning } = bound.y
  const inside = (bound.drawing.options as { values?: string }).values === 'inside'
  const adds =
    meaning.is === 'column' ||
    (meaning.is === 'summary' && (meaning.how === 'sum' || meaning.how === 'count'))
  const total = Array.from(wedges.keys, key => bound.marks.y.at[markOf.get(key)!]).reduce((a, b) => a + b, 0)
  return [
    ...(bound.drawing.wordless ? [] : sliceLabels(id, wedges, list, plan, plot, theme, measure, inside)),
    ...(adds && wedges.inner[0] > 0
      ? ringCentre(
          id,
          wedges,
          {
            value: briefText(total, { ...lookOf(bound.y), locale: tongue.locale }),
            title: measureTitle(bound.y, undefined, bound.drawing.table, tongue),
          },
          theme,
          measure,
        )
      : []),
  ]
}
