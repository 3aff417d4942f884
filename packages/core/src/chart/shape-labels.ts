import { type LabelJob, placeLabels } from '../guide/labels.ts'
import { LabelRoom } from '../guide/room.ts'
import {
  planSlices,
  ringCentre,
  type SlicePlan,
  type SliceWords,
  sliceLabels,
} from '../guide/slice-labels.ts'
import type { Batch, Box, Wedges } from '../scene/scene.ts'
import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import type { Bound, BoundDrawing } from './bind.ts'
import { levelName, roundedLevel } from './level.ts'
import { labelOf, lookOf, measureTitle } from './naming.ts'
import { arrangeOf } from './resolve.ts'
import { briefText, roleTexts, shareText } from './values.ts'

/** The shapes of one drawing. */
export interface DrawnShapes {
  bound: BoundDrawing
  batches: readonly Batch[]
}

/** Places the words at all shapes of a plot: references first, since they say the most. Adds a finding for those without room. */
export function shapeLabels(
  drawn: readonly DrawnShapes[],
  all: Bound,
  plot: Box,
  locale: string,
  theme: Theme,
  measure: Measure,
): Batch[] {
  const jobs = drawn
    .flatMap(({ bound, batches }) => {
      const job = jobFor(bound, batches, locale)
      return job ? [{ bound, job }] : []
    })
    .sort((a, b) => Number(b.job.at === 'reference') - Number(a.job.at === 'reference'))
  if (jobs.length === 0) return []
  const room = new LabelRoom(
    { x: plot.x - 1, y: plot.y - 3, width: plot.width + 2, height: plot.height + 4 },
    drawn.flatMap(one => one.batches),
  )
  return jobs.flatMap(({ bound, job }) => {
    const { batches, left } = placeLabels(`drawing ${bound.drawing.index}`, job, room, plot, theme, measure)
    if (left > 0)
      all.findings.push({
        code: 'labels-left-out',
        message: `${left === 1 ? 'One label has' : `${left} labels have`} no room and ${left === 1 ? 'is' : 'are'} left out`,
        remedy: 'Make the chart larger, label fewer shapes with "where", or leave values to the tooltip.',
        path: bound.drawing.path ? `${bound.drawing.path}.label` : 'label',
      })
    return batches
  })
}

function jobFor(bound: BoundDrawing, batches: readonly Batch[], locale: string): LabelJob | undefined {
  const { drawing, marks, labels } = bound
  if (drawing.kind.parts) return undefined
  // A kind may have words of its own; those of the description go before them.
  const told = batches.find(batch => batch.labels)
  if (told?.labels && (!labels || drawing.label === 'own') && !drawing.wordless) {
    const { labels: words } = told
    // Several formulas are told apart only by name, and shown only when asked for.
    const several = marks.series.length > 1
    if (several && drawing.label !== 'own') return undefined
    const textOf = (shape: number) =>
      words[shape] && several ? `${marks.series[shape]?.name}: ${words[shape]}` : words[shape]
    return { batch: told, textOf, at: 'reference' }
  }
  const texts = labels ?? (drawing.kind.name === 'reference' ? referenceTexts(bound, locale) : undefined)
  if (!texts || drawing.wordless) return undefined
  const batch = batches.find(one => one.kind === 'rects' || one.kind === 'segments') ?? batches[0]
  if (!batch) return undefined
  if (batch.kind === 'lines' && batch.keys.length === 0 && batch.labels === undefined) return undefined
  const markOf = new Map<string | number, number>()
  for (let mark = 0; mark < marks.length; mark++) markOf.set(marks.keyOf(mark), mark)
  const textOf = (shape: number) => {
    const mark = markOf.get(batch.keys[shape])
    return mark === undefined ? undefined : texts(mark)
  }
  const stacked = ['stack', 'share'].includes(arrangeOf(drawing)) && marks.series.length > 1
  const at =
    drawing.kind.aside && batch.kind !== 'discs' && batch.kind !== 'lines'
      ? 'reference'
      : drawing.kind.cells
        ? 'cell'
        : stacked
          ? 'stacked'
          : 'bar'
  return { batch, textOf, at }
}

/** A reference is named after what it is, and says its value unless it was named. */
function referenceTexts(
  { drawing, x, y, marks }: BoundDrawing,
  locale: string,
): ((mark: number) => string) | undefined {
  const { name, level } = drawing
  if (name !== undefined) return () => name
  // What stands at places of its own is read by its axes.
  if (!marks.x.unbound && !marks.y.unbound) return undefined
  const values = marks.y.unbound ? x : y
  if (level) {
    const cells = values.cells
    if (cells.type === 'text') return undefined
    const rounded = { ...values, cells: { ...cells, values: cells.values.map(roundedLevel) } }
    const text = roleTexts(rounded, locale)
    return mark => `${levelName(level)} ${text(mark)}`
  }
  const text = roleTexts(values, locale)
  const label = values.meaning.is === 'value' ? '' : `${labelOf(values.meaning, drawing.table)} `
  return marks.length > 12 ? undefined : mark => `${label}${text(mark)}`
}

/** The words at each slice: its name, and its share of the whole unless the description says what. */
export function sliceWords(
  { marks, labels, drawing }: BoundDrawing,
  locale: string,
): (mark: number) => SliceWords {
  let total = 0
  for (const value of marks.y.at) if (value > 0) total += value
  return mark => ({
    name: marks.series[marks.seriesOf?.[mark] ?? 0].name,
    value: drawing.wordless ? '' : labels ? labels(mark) : shareText(marks.y.at[mark] / total, locale),
  })
}

/** Where the words of a pie's slices stand. */
export function planPie(
  bound: BoundDrawing,
  width: number,
  locale: string,
  theme: Theme,
  measure: Measure,
): SlicePlan {
  const words = sliceWords(bound, locale)
  const list: SliceWords[] = []
  for (let mark = 0; mark < bound.marks.length; mark++) if (bound.marks.y.at[mark] > 0) list.push(words(mark))
  return planSlices(bound.drawing.wordless ? [] : list, width, theme, measure)
}

/** The words at the slices of a pie, and the whole in the middle of a ring. */
export function pieLabels(
  bound: BoundDrawing,
  wedges: Wedges,
  plan: SlicePlan,
  plot: Box,
  locale: string,
  theme: Theme,
  measure: Measure,
): Batch[] {
  if (wedges.x.length === 0) return []
  const id = `drawing ${bound.drawing.index}`
  const markOf = new Map<string | number, number>()
  for (let mark = 0; mark < bound.marks.length; mark++) markOf.set(bound.marks.keyOf(mark), mark)
  const words = sliceWords(bound, locale)
  const list = Array.from(wedges.keys, key => words(markOf.get(key)!))
  const { meaning } = bound.y
  const adds =
    meaning.is === 'column' ||
    (meaning.is === 'summary' && (meaning.how === 'sum' || meaning.how === 'count'))
  const total = Array.from(wedges.keys, key => bound.marks.y.at[markOf.get(key)!]).reduce((a, b) => a + b, 0)
  return [
    ...(bound.drawing.wordless ? [] : sliceLabels(id, wedges, list, plan, plot, theme, measure)),
    ...(adds && wedges.inner[0] > 0
      ? ringCentre(
          id,
          wedges,
          {
            value: briefText(total, { ...lookOf(bound.y), locale }),
            title: measureTitle(bound.y, undefined, bound.drawing.table),
          },
          theme,
          measure,
        )
      : []),
  ]
}
