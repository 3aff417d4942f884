import { bind } from '../bind/bind.ts'
import type { Bound, ShapedDrawing } from '../bind/model.ts'
import type { Settled } from '../describe/description.ts'
import type { Finding } from '../finding/error.ts'
import { describe } from '../pane/summary.ts'
import type { HeadingWords, ResolvedDrawing } from '../resolve/model.ts'
import type { Table } from '../table/live/table.ts'
import type { Theme } from '../theme/theme.ts'
import type { Tongue } from '../words/tongue.ts'
import type { Chart } from './chart.ts'
import { Spread } from './spread.ts'

/** The charts of what is shown: its own, or those of a spread. */
export const chartsOf = (shown: Chart | Spread): readonly Chart[] =>
  shown instanceof Spread ? shown.charts : [shown]

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
  const share = shown instanceof Spread ? (shown.description.share ?? []) : []
  const unions = share
    .map(name => ({
      name,
      words: [...new Set(bounds.flatMap(bound => bound.scales.get(name)?.words ?? []))],
    }))
    .filter(({ words }) => words.length > 0)
  if (unions.length === 0) return bounds
  return charts.map((chart, i) => {
    const scales = { ...chart.resolved.description.scales }
    for (const { name, words } of unions)
      if (bounds[i].scales.get(name)?.type === 'text') scales[name] = { ...scales[name], domain: words }
    return bindOne(i, { ...chart.resolved.description, scales })
  })
}

export function wordsOf(
  shown: Chart | Spread,
  bounds: Bound[],
  headings: readonly HeadingWords[],
): { title: string; description: string } {
  const all = chartsOf(shown).map((chart, i) =>
    describe({ ...chart.resolved.description, ...headings[i] }, bounds[i]),
  )
  if (!(shown instanceof Spread)) return all[0]
  const title =
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
