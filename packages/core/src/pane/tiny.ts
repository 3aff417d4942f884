import type { Bound } from '../bind/model.ts'
import { lookOf, measureTitle } from '../bind/naming.ts'
import { ownValues } from '../bind/values.ts'
import type { Settled } from '../describe/description.ts'
import { TextBuilder } from '../guide/build.ts'
import { clean, ellipsis } from '../guide/text.ts'
import { briefText } from '../scale/number-format.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { numbersOf } from '../table/cells/cells.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'

/** Height of the line of words over a tiny chart, in pixels. */
export const TINY_LINE = 14

/** Whether a tiny chart has room for words over its shapes. */
export const tinyHasWords = ({ width, height }: Box): boolean => width >= 60 && height >= 40

/** All the words that a tiny chart has room for: what it shows, and the last value, or the greatest where there is no last one. */
export function tinyWords(
  description: Settled,
  bound: Bound,
  box: Box,
  theme: Theme,
  measure: Measure,
): Batch[] {
  const first = bound.drawings.find(drawn => !drawn.drawing.kind.aside) ?? bound.drawings[0]
  if (!first) return []
  const font = { size: theme.sizes.caption, weight: 400 } as const
  const strong = { size: theme.sizes.caption, weight: 600 } as const
  const values = ownValues(first)
  const last = values && lastOf(first, values)
  const text =
    last === undefined || Number.isNaN(last)
      ? ''
      : briefText(last, { ...lookOf(values!), locale: bound.tongue.locale })
  const room = box.width - (text ? measure(text, strong) + 6 : 0)
  const title =
    description.title ?? (values ? measureTitle(values, undefined, first.drawing.table, bound.tongue) : '')
  const name = new TextBuilder('tiny/name', { ...font, anchor: 'start' })
  const value = new TextBuilder('tiny/value', { ...strong, anchor: 'end' })
  const y = box.y + font.size * 0.8
  if (title && room > 24) name.add(ellipsis(clean(title), room, font, measure), box.x, y, theme.muted, 'name')
  if (text) value.add(text, box.x + box.width, y, theme.text, 'value')
  return [...name.build(), ...value.build()]
}

type First = Bound['drawings'][number]

function lastOf({ x, marks }: First, values: NonNullable<ReturnType<typeof ownValues>>): number | undefined {
  if (values.cells.type !== 'number') return undefined
  let best = Number.NaN
  const ordered = x.cells.type === 'time' && marks.series.length === 1
  let at = Number.NEGATIVE_INFINITY
  values.cells.values.forEach((value, mark) => {
    if (Number.isNaN(value)) return
    const rank = ordered ? numbersOf(x.cells)[mark] : value
    if (rank >= at) {
      at = rank
      best = value
    }
  })
  return best
}
