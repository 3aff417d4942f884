import { computed, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import type { Finding } from '../finding/error.ts'
import type { Scene } from '../scene/scene.ts'
import type { Table } from '../table/table.ts'
import type { Conditions } from '../table/where.ts'
import { themeOf } from '../theme/house.ts'
import { type Measure, rememberWidths } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import { type Bound, bind } from './bind.ts'
import type { Chart } from './chart.ts'
import type { Composition } from './compose.ts'
import { describe } from './describe.ts'
import type { Description } from './description.ts'
import { type Domain, settleDomain } from './domain.ts'
import type { Frame, State } from './frame.ts'
import { groundTheme } from './ground.ts'
import { fillHeading, type HeadingWords } from './heading-words.ts'
import { composePicture } from './picture.ts'
import type { ResolvedDrawing } from './resolve.ts'
import { type ShapedDrawing, shapeAll } from './shapes.ts'
import { Spread } from './spread.ts'

const chartsOf = (shown: Chart | Spread): readonly Chart[] =>
  shown instanceof Spread ? shown.charts : [shown]

/** Every table that is drawn. */
export const tablesOf = (shown: Chart | Spread): Table[] => [
  ...new Set(chartsOf(shown).flatMap(chart => chart.resolved.tables)),
]

/**
 * A chart or a spread in a frame, kept up to date: rows are shaped once for each state of their table, values placed
 * once for each set of hidden series, and only the layout is redone when the frame or the zoom changes.
 */
export class View {
  readonly chart: Signal<Chart | Spread>
  readonly state: Signal<State>
  readonly frame: Signal<Frame>
  readonly composition: ReadonlySignal<Composition>
  /** First fits of scales that keep theirs. */
  private readonly fits = new WeakMap<Chart, Map<string, Domain>>()

  constructor(chart: Chart | Spread, state: State, frame: Frame) {
    this.chart = signal(chart)
    this.state = signal(state)
    this.frame = signal(frame)
    const theme = computed(() => {
      const { theme: wish, house } = this.frame.value
      return groundTheme(themeOf(wish, house), this.chart.value.description.background, house)
    })
    const locale = computed(() => this.frame.value.locale ?? 'en')
    const hidden = computed(() => (this.state.value.hidden ?? []).join('\u001e'))
    const zoom = computed(() => this.state.value.zoom)
    const source = computed(() => this.frame.value.measure)
    const measure: ReadonlySignal<Measure> = computed(() => rememberWidths(source.value))
    const shapes: ReadonlySignal<ShapedDrawing[][]> = computed(() => {
      for (const table of tablesOf(this.chart.value)) table.version.value
      return chartsOf(this.chart.value).map(one => shapeAll(one.resolved))
    })
    const bounds: ReadonlySignal<Bound[]> = computed(() => {
      const keys = new Set(hidden.value === '' ? [] : hidden.value.split('\u001e'))
      return bindAll(this.chart.value, shapes.value, theme.value, locale.value, keys)
    })
    const domains: ReadonlySignal<Map<string, Domain>[]> = computed(() =>
      this.settleAll(this.chart.value, bounds.value),
    )
    const headings = computed(() => {
      for (const table of tablesOf(this.chart.value)) table.version.value
      return chartsOf(this.chart.value).map(({ resolved, table, description }) =>
        fillHeading(resolved.heading, table, description.where as Conditions | undefined, locale.value),
      )
    })
    const words = computed(() => wordsOf(this.chart.value, bounds.value, headings.value, locale.value))
    this.composition = computed(() => {
      const shown = this.chart.value
      return composePicture({
        charts: chartsOf(shown).map((one, i) => ({
          description: { ...one.description, ...headings.value[i] },
          bound: bounds.value[i],
          domains: domains.value[i],
        })),
        background: shown.description.background,
        spread: shown instanceof Spread ? shown.description : undefined,
        frame: this.frame.value,
        theme: theme.value,
        measure: measure.value,
        words: words.value,
        zoom: zoom.value,
      })
    })
  }

  get scene(): Scene {
    return this.composition.value.scene
  }

  /** What a person would regret, about the data and the description. */
  get findings(): readonly Finding[] {
    const { panes } = this.composition.value
    const read = chartsOf(this.chart.value).flatMap(chart =>
      chart.resolved.drawings.flatMap(drawing =>
        columnsOf(drawing).flatMap(name =>
          drawing.table.findings.filter(finding => finding.path === `columns.${name}`),
        ),
      ),
    )
    const words = chartsOf(this.chart.value).flatMap(chart => chart.resolved.findings)
    return [...new Set(read), ...words, ...panes.flatMap(pane => pane.bound.findings)]
  }

  private settleAll(shown: Chart | Spread, bounds: Bound[]): Map<string, Domain>[] {
    const all = chartsOf(shown).map((chart, i) => {
      const { scales } = chart.description
      const fits = this.fits.get(chart) ?? new Map<string, Domain>()
      this.fits.set(chart, fits)
      return new Map(
        [...bounds[i].scales].map(([name, input]) => {
          const kept = scales?.[name]?.fixed ? fits.get(name) : undefined
          const domain = settleDomain(input, scales?.[name], bounds[i], kept)
          if (input.uses.some(use => use.positions.at.length > 0)) fits.set(name, kept ?? domain)
          return [name, domain] as const
        }),
      )
    })
    for (const name of shown instanceof Spread ? (shown.description.share ?? []) : []) {
      const own = all.map(map => map.get(name)).filter(domain => domain !== undefined)
      const joint = {
        min: Math.min(...own.map(domain => domain.min)),
        max: Math.max(...own.map(domain => domain.max)),
      }
      for (const map of all) {
        const domain = map.get(name)
        if (domain) map.set(name, { ...domain, ...joint })
      }
    }
    return all
  }
}

/** Binds every chart; categories of a shared scale are the union of all. */
function bindAll(
  shown: Chart | Spread,
  shapes: ShapedDrawing[][],
  theme: Theme,
  locale: string,
  hidden: ReadonlySet<string>,
): Bound[] {
  const charts = chartsOf(shown)
  const bindOne = (i: number, description: Description) => bind(shapes[i], description, theme, locale, hidden)
  const bounds = charts.map((chart, i) => bindOne(i, chart.description))
  const share = shown instanceof Spread ? (shown.description.share ?? []) : []
  const unions = share
    .map(name => ({
      name,
      words: [...new Set(bounds.flatMap(bound => bound.scales.get(name)?.words ?? []))],
    }))
    .filter(({ words }) => words.length > 0)
  if (unions.length === 0) return bounds
  return charts.map((chart, i) => {
    const scales = { ...chart.description.scales }
    for (const { name, words } of unions)
      if (bounds[i].scales.get(name)?.type === 'text') scales[name] = { ...scales[name], domain: words }
    return bindOne(i, { ...chart.description, scales })
  })
}

function wordsOf(
  shown: Chart | Spread,
  bounds: Bound[],
  headings: readonly HeadingWords[],
  locale: string,
): { title: string; description: string } {
  const all = chartsOf(shown).map((chart, i) =>
    describe({ ...chart.description, ...headings[i] }, bounds[i], locale),
  )
  if (!(shown instanceof Spread)) return all[0]
  const title =
    shown.description.title ??
    all
      .map(one => one.title)
      .filter(Boolean)
      .join('; ')
  return { title, description: all.map(one => `${one.title}: ${one.description}`).join(' ') }
}

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

/** The scene of a chart or a spread for a state and a frame. */
export function compose(chart: Chart | Spread, state: State, frame: Frame): Scene {
  return new View(chart, state, frame).scene
}
