import { bind } from '../bind/bind.ts'
import type { Bound, ShapedDrawing } from '../bind/model.ts'
import type { Settled } from '../describe/description.ts'
import type { Finding } from '../finding/error.ts'
import { describe } from '../pane/summary.ts'
import type { HeadingWords, ResolvedDrawing } from '../resolve/model.ts'
import { extentOf } from '../table/cells/extent.ts'
import type { Table } from '../table/live/table.ts'
import type { Theme } from '../theme/theme.ts'
import type { Tongue } from '../words/tongue.ts'
import type { Chart } from './chart.ts'
import type { Spread } from './spread.ts'

/** Whether several charts are shown; known by what it has, so that pages of single charts need not hold spreads. */
export const isSpread = (shown: Chart | Spread): shown is Spread => 'charts' in shown

/** The chart of which panes are shown; undefined where none is split. */
export const splitOf = (shown: Chart | Spread): Chart | undefined =>
  isSpread(shown) ? shown.split : undefined

/** The chart whose rows fill the holes in the words around several charts; undefined where there are none. */
export const speakerOf = (shown: Chart | Spread): Chart | undefined =>
  isSpread(shown) ? shown.speaker : undefined

/** The charts of what is shown: its own, or those of a spread. */
export const chartsOf = (shown: Chart | Spread): readonly Chart[] =>
  isSpread(shown) ? shown.charts : [shown]

/** Every table that is drawn. */
export const tablesOf = (shown: Chart | Spread): Table[] => [
  ...new Set(chartsOf(shown).flatMap(chart => chart.resolved.tables)),
]

/** Binds every chart; categories of a shared scale are the union of all. */
export function bindAll(
  shown: Chart | Spread,
  shapes: ShapedDrawing[][],
  theme: Theme,
  tongue: Tongue,
  hidden: ReadonlySet<string>,
): Bound[] {
  const charts = chartsOf(shown)
  const bindOne = (i: number, description: Settled) => bind(shapes[i], description, theme, tongue, hidden)
  const bounds = charts.map((chart, i) => bindOne(i, chart.resolved.description))
  const share = isSpread(shown) ? (shown.description.share ?? []) : []
  const unions = share
    .map(name => ({
      name,
      words: [...new Set(bounds.flatMap(bound => bound.scales.get(name)?.words ?? []))],
    }))
    .filter(({ words }) => words.length > 0)
  const shade = splitOf(shown) ? shadeOf(bounds) : undefined
  if (unions.length === 0 && !shade) return ofOneSize(shown, bounds)
  const joint = charts.map((chart, i) => {
    const scales = { ...chart.resolved.description.scales }
    // A colour means the same number in all panes.
    if (shade) scales.color = { domain: shade, ...scales.color }
    for (const { name, words } of unions)
      if (bounds[i].scales.get(name)?.type === 'text') scales[name] = { ...scales[name], domain: words }
    return bindOne(i, { ...chart.resolved.description, scales })
  })
  return ofOneSize(shown, joint)
}

/** The ends of the numbers that colour marks in any pane; undefined where none do. */
function shadeOf(bounds: readonly Bound[]): [number, number] | undefined {
  const extents = bounds
    .flatMap(({ drawings }) => drawings)
    .flatMap(({ shade }) => (shade && shade.cells.type !== 'text' ? [extentOf(shade.cells)] : []))
    .filter(({ min, max }) => min <= max)
  if (extents.length === 0) return undefined
  return [Math.min(...extents.map(({ min }) => min)), Math.max(...extents.map(({ max }) => max))]
}

/** In the panes of a chart an area means the same number. */
function ofOneSize(shown: Chart | Spread, bounds: Bound[]): Bound[] {
  if (!splitOf(shown)) return bounds
  const max = Math.max(...bounds.flatMap(({ drawings }) => drawings.map(({ marks }) => marks.size?.max ?? 0)))
  const sizes = bounds.map(({ sizes }) => sizes).find(sizes => sizes !== undefined)
  if (!(max > 0) || !sizes) return bounds
  return bounds.map(bound => ({
    ...bound,
    drawings: bound.drawings.map(drawn =>
      drawn.marks.size ? { ...drawn, marks: { ...drawn.marks, size: { ...drawn.marks.size, max } } } : drawn,
    ),
  }))
}

export function wordsOf(
  shown: Chart | Spread,
  bounds: Bound[],
  headings: readonly HeadingWords[],
  heading: HeadingWords,
): { title: string; description: string } {
  const all = chartsOf(shown).map((chart, i) =>
    describe({ ...chart.resolved.description, ...headings[i] }, bounds[i]),
  )
  if (!isSpread(shown)) return all[0]
  const title =
    heading.title ??
    shown.description.title ??
    all
      .map(words => words.title)
      .filter(Boolean)
      .join('; ')
  return { title, description: all.map(words => `${words.title}: ${words.description}`).join(' ') }
}

/** What was found in the columns that a drawing reads. */
export const columnFindings = (drawing: ResolvedDrawing): Finding[] =>
  columnsOf(drawing).flatMap(name =>
    drawing.table.findings.filter(finding => finding.path === `columns.${name}`),
  )

/** The table columns that a drawing reads. */
function columnsOf({ roles, wide }: ResolvedDrawing): string[] {
  const meanings = [...roles.values(), ...(wide?.meanings ?? [])]
  return [
    ...new Set(
      meanings.flatMap(meaning =>
        ('column' in meaning && meaning.column ? [meaning.column] : []).concat(
          'to' in meaning ? meaning.to : [],
        ),
      ),
    ),
  ]
}
