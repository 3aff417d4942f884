import { levelName, roundedLevel } from '../../bind/level.ts'
import type { BoundDrawing } from '../../bind/model.ts'
import { labelOf } from '../../bind/naming.ts'
import type { FormOf } from '../../bind/number-forms.ts'
import { labelTexts, roleTexts } from '../../bind/values.ts'
import { isLying } from '../../drawing/is-lying.ts'
import type { Finding } from '../../finding/error.ts'
import type { Found } from '../../finding/found.ts'
import { partPath } from '../../finding/part-path.ts'
import type { LabelJob, LabelSides } from '../../guide/bar-labels.ts'
import { boxesOf, LabelRoom } from '../../guide/label-room.ts'
import { placeLabels } from '../../guide/place-labels.ts'
import { arrangeOf } from '../../resolve/looks.ts'
import type { Batch, Texts } from '../../scene/scene.ts'
import type { Tongue } from '../../words/tongue.ts'
import { tooMany } from '../too-many.ts'
import type { DrawnShapes } from './drawn.ts'
import { labelFigures, numberWriter } from './label-figures.ts'
import { type NoteContext, placeNotes } from './notes.ts'

/** What the words at shapes are placed by. */
export interface LabelContext extends Omit<NoteContext, 'drawn' | 'room'> {
  tongue: Tongue
  formOf: FormOf
  sides: LabelSides | undefined
  /** What stands in the plot already, such as the names of lines at their ends. */
  standing: readonly Batch[]
}

/** Places the words at all shapes of a plot: references first, since they say the most. Those without room are told of. */
export function shapeLabels(drawn: readonly DrawnShapes[], context: LabelContext): Found<Batch[]> {
  const { tongue, formOf, sides, standing, plot, theme, measure } = context
  const findings: Finding[] = []
  const jobs = drawn
    .flatMap(({ bound, batches }) => {
      const job = jobFor(bound, batches, tongue, formOf)
      if (
        bound.drawing.label !== undefined &&
        !bound.drawing.kind.parts &&
        !job?.batch.keys.length &&
        !job?.batch.labels &&
        bound.marks.length > 0
      )
        findings.push(tooMany('label', 'Labels', bound))
      return job ? [{ bound, job: { ...job, sides: sidesOf(sides, bound.drawing.index) } }] : []
    })
    .sort((a, b) => Number(b.job.at === 'reference') - Number(a.job.at === 'reference'))
  if (jobs.length === 0 && context.notes.length === 0) return { value: [], findings }
  const room = new LabelRoom(
    { x: plot.x - 1, y: plot.y - 3, width: plot.width + 2, height: plot.height + 4 },
    drawn.flatMap(drawn => drawn.batches),
  )
  for (const batch of standing) for (const box of boxesOf(batch, measure)) room.take(box)
  const value = jobs.flatMap(({ bound, job }) => {
    const { batches, left } = placeLabels(`drawing ${bound.drawing.index}`, job, room, plot, theme, measure)
    if (left > 0)
      findings.push({
        code: 'labels-left-out',
        message: `${left === 1 ? 'One label has' : `${left} labels have`} no room and ${left === 1 ? 'is' : 'are'} left out`,
        remedy: 'Make the chart larger, label fewer shapes with "where", or leave values to the tooltip.',
        path: partPath(bound.drawing.path, 'label'),
      })
    return batches
  })
  const notes = placeNotes({ ...context, drawn, room })
  return { value: [...value, ...notes.value], findings: [...findings, ...notes.findings] }
}

/** The sides of one drawing's labels. */
function sidesOf(all: LabelSides | undefined, drawing: number): LabelJob['sides'] {
  if (all && !all.has(drawing)) all.set(drawing, new Map())
  return all?.get(drawing)
}

function jobFor(
  bound: BoundDrawing,
  batches: readonly Batch[],
  tongue: Tongue,
  formOf: FormOf,
): LabelJob | undefined {
  const { drawing, marks } = bound
  const labels = labelTexts(bound, tongue.locale, formOf)
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
  const own = !labels && drawing.kind.name === 'reference' ? referenceTexts(bound, tongue, formOf) : undefined
  const texts = labels ?? own?.texts
  const figures = labels ? labelFigures(bound, tongue.locale, formOf) : own?.figures
  if (!texts || drawing.wordless) return undefined
  const batch = batches.find(batch => batch.kind === 'rects' || batch.kind === 'segments') ?? batches[0]
  if (!batch) return undefined
  if (batch.kind === 'lines' && batch.keys.length === 0 && batch.labels === undefined) return undefined
  const markOf = new Map<string | number, number>()
  for (let mark = 0; mark < marks.length; mark++) markOf.set(marks.keyOf(mark), mark)
  const atShape = <T>(at: ((mark: number) => T) | undefined) => {
    return (shape: number) => {
      const mark = markOf.get(batch.keys[shape])
      return mark === undefined ? undefined : at?.(mark)
    }
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
  const measuredOn = at === 'stacked' || at === 'cell' ? undefined : measuredScale(bound)
  return { batch, textOf: atShape(texts), figuresOf: atShape(figures), at, measuredOn }
}

/** The scale on which a label's own value is the end of its shape. */
const measuredScale = ({ drawing, marks, xScale, yScale }: BoundDrawing): Texts['measuredOn'] => {
  if (drawing.level === undefined && drawing.label !== 'own') return undefined
  const across = drawing.level === undefined ? isLying(marks) : marks.y.unbound
  return across ? { scale: xScale, axis: 'x' } : { scale: yScale, axis: 'y' }
}

/** A reference is named after what it is, and says its value unless it was named. */
function referenceTexts(
  { drawing, x, y, marks }: BoundDrawing,
  tongue: Tongue,
  formOf: FormOf,
): { texts: (mark: number) => string; figures: ReturnType<typeof labelFigures> } | undefined {
  const { name, level } = drawing
  if (name !== undefined) return { texts: () => name, figures: undefined }
  // What stands at places of its own is read by its axes.
  if (!marks.x.unbound && !marks.y.unbound) return undefined
  const values = marks.y.unbound ? x : y
  if (level) {
    const { cells } = values
    if (cells.type === 'text') return undefined
    const rounded = { ...values, cells: { ...cells, values: cells.values.map(roundedLevel) } }
    const text = roleTexts(rounded, tongue.locale, formOf(values))
    const write = numberWriter(rounded, tongue.locale, formOf(values))
    return {
      texts: mark => `${levelName(level, tongue)} ${text(mark)}`,
      figures:
        write &&
        (mark => ({
          values: [cells.values[mark]],
          write: ([value]) => `${levelName(level, tongue)} ${write(roundedLevel(value))}`,
        })),
    }
  }
  const text = roleTexts(values, tongue.locale, formOf(values))
  const label = values.meaning.is === 'value' ? '' : `${labelOf(values.meaning, drawing.table, tongue)} `
  return marks.length > 12 ? undefined : { texts: mark => `${label}${text(mark)}`, figures: undefined }
}
