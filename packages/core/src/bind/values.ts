import { remember } from '../describe/remember.ts'
import { isLying } from '../drawing/is-lying.ts'
import { partPath } from '../finding/part-path.ts'
import { numberFormat } from '../scale/intl-numbers.ts'
import { keptTexts } from '../scale/kept-texts.ts'
import { briefWriter, valueText } from '../scale/number-format.ts'
import { cycleText, momentText } from '../scale/time-format.ts'
import { safeLink } from '../scene/scene.ts'
import type { Cells } from '../table/cells/cells.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import { type Conditions, rowsWhere } from '../table/group/where.ts'
import { fillWords } from '../words/holes.ts'
import type { BoundDrawing, LabelTexts } from './model.ts'
import { isOpenBin, lookOf, unitOf } from './naming.ts'
import type { FormOf, NumberForm } from './number-forms.ts'

/** Numbers up to this many are written alike, with as many decimals as tell them apart. */
export const MOST_ALIKE = 2000

/** What fills the holes in the words of a drawing's labels. */
export const labelValues = (
  { drawing: { label } }: BoundDrawing,
  shaped: Shaped,
): (RoleValues | undefined)[] =>
  typeof label === 'object' ? label.pieces.slice(1).map((_, i) => shaped.roles.get(`label ${i}`)) : []

/** What a drawing's labels say, as far as its description asks for labels. */
export function labelTexts(bound: BoundDrawing, locale: string, formOf: FormOf): LabelTexts | undefined {
  const all = allTexts(bound, locale, formOf)
  // Looked for once for these marks, not in every frame of a zoom.
  const chosen = all && remember(bound.memory, 'labelled', () => labelledMarks(bound))
  return chosen ? mark => (chosen(mark) ? all(mark) : '') : all
}

/** Which marks have words, where not all have. */
function labelledMarks(bound: BoundDrawing): ((mark: number) => boolean) | undefined {
  const { marks, drawing } = bound
  const { labelled, table } = drawing
  if (!labelled) return undefined
  const path = partPath(drawing.path, 'label.where')
  const { x, y, shade, size } = bound
  const fits =
    table.marksMeeting?.([x, y, shade, size], labelled.where ?? {}, path) ??
    rowsMeeting(bound, labelled.where, path)
  if (labelled.top === undefined) return fits
  const { cells } = ownValues(bound) ?? bound.y
  const value = (mark: number) => (cells.type === 'text' ? 0 : cells.values[mark])
  const best = Array.from({ length: marks.length }, (_, mark) => mark)
    .filter(mark => value(mark) === value(mark) && fits(mark))
    .sort((a, b) => value(b) - value(a))
    .slice(0, labelled.top)
  const kept = new Set(best)
  return mark => kept.has(mark)
}

/** The marks all of whose rows meet conditions. */
function rowsMeeting({ marks, drawing }: BoundDrawing, where: Conditions | undefined, path: string) {
  const rows = rowsWhere(drawing.table, where, path)
  const meets = rows && new Set(rows)
  return (mark: number) => !meets || Array.from(marks.rowsOf(mark)).every(row => meets.has(row))
}

function allTexts(bound: BoundDrawing, locale: string, formOf: FormOf): LabelTexts | undefined {
  const { label } = bound.drawing
  if (label === undefined) return undefined
  if (label === 'own') {
    const values = ownValues(bound)
    return values && roleTexts(values, locale, formOf(values))
  }
  const holes = bound.labelValues.map(values => values && roleTexts(values, locale, formOf(values)))
  const agreed = bound.labelValues.filter(values => values?.agreed)
  return mark =>
    // What several rows do not agree in is no word about all of them.
    agreed.some(values => isMissing(values!.cells, mark))
      ? ''
      : fillWords(
          label.pieces,
          holes.map(text => text?.(mark) ?? ''),
        )
}

const isMissing = (cells: Cells, at: number): boolean =>
  cells.type === 'text' ? cells.codes[at] < 0 : cells.values[at] !== cells.values[at]

/** The addresses that marks lead to. Unsafe ones lead nowhere. */
export function linkTexts(shaped: Shaped): LabelTexts | undefined {
  const cells = shaped.roles.get('link')?.cells
  if (cells?.type !== 'text') return undefined
  return mark => safeLink(cells.words[cells.codes[mark]] ?? '') ?? ''
}

/** The values that the shapes show: a cell's colour, a bar's length, a point's height. */
export function ownValues({ drawing, marks, shade, x, y }: BoundDrawing): RoleValues | undefined {
  if (drawing.kind.cells) return shade
  const values = isLying(marks) ? x : y
  return marks[isLying(marks) ? 'x' : 'y'].unbound ? undefined : values
}

/** The values of a role as people read them, by mark. */
export function roleTexts(values: RoleValues, locale: string, form: NumberForm = {}): LabelTexts {
  const { cells, meaning, ends } = values
  if (cells.type === 'text') {
    const { codes, words } = cells
    return mark => {
      const word = codes[mark] < 0 ? '' : (words[codes[mark]] ?? '')
      return meaning.is === 'cycle' ? cycleText(meaning.cycle, word, locale) : word
    }
  }
  const unit = unitOf(values)
  const all = cells.values
  const write = textsOf(cells.type, all, values, unit, locale, form)
  if (!ends || (!values.spans && meaning.is !== 'bins')) return write
  const writeEnd = textsOf(cells.type, ends, values, unit, locale, form)
  return mark => (isOpenBin(meaning, all[mark]) ? `${write(mark)}+` : `${write(mark)} – ${writeEnd(mark)}`)
}

function textsOf(
  type: 'number' | 'time',
  all: Float64Array,
  values: RoleValues,
  unit: Parameters<typeof momentText>[1],
  locale: string,
  form: NumberForm,
): LabelTexts {
  if (type === 'time')
    return mark => (Number.isNaN(all[mark]) ? '' : momentText(all[mark], unit, locale, values.zone))
  const look = { ...lookOf(values), ...form, locale }
  if (all.length > MOST_ALIKE) return mark => (Number.isNaN(all[mark]) ? '' : valueText(all[mark], look))
  const write = keptTexts(briefWriter(presentOf(all), look), MOST_ALIKE)
  return mark => (Number.isNaN(all[mark]) ? '' : write(all[mark]))
}

export const presentOf = (all: Float64Array) => [...new Set(all)].filter(value => !Number.isNaN(value))

/**
 * The shares of a whole in whole percents that sum to 100, by the largest remainder (Hamilton's method): each is rounded
 * down or up, up where most was lost. A share that would read as nothing is "<1%". Values that are not above zero have none.
 */
export function shareTexts(values: ArrayLike<number>, locale: string): string[] {
  const format = numberFormat(locale, { style: 'percent', maximumFractionDigits: 0 })
  const list = Array.from(values, value => Math.max(0, value) || 0)
  const total = list.reduce((sum, value) => sum + value, 0)
  const exact = list.map(value => (total > 0 ? Number(((value / total) * 100).toFixed(4)) : 0))
  const percents = exact.map(Math.floor)
  const lost = Math.round(100 - percents.reduce((sum, value) => sum + value, 0))
  const byLoss = exact.map((_, i) => i).sort((a, b) => exact[b] - percents[b] - (exact[a] - percents[a]))
  if (total > 0) for (const i of byLoss.slice(0, lost)) percents[i]++
  return percents.map((percent, i) =>
    percent === 0 && list[i] > 0 ? `<${format.format(0.01)}` : format.format(percent / 100),
  )
}
