import { computed, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import { OUTSIDE, settleDomain } from '../bind/domain.ts'
import { fillHeading } from '../bind/heading-values.ts'
import type { Bound, Domain, ShapedDrawing } from '../bind/model.ts'
import { type RowFilter, rowsPassing, shapeAll } from '../bind/shapes.ts'
import { sharedScales } from '../describe/description.ts'
import { checkedFrame, type Frame, type State } from '../describe/frame.ts'
import { checkState } from '../describe/state-check.ts'
import type { Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { dimmed, type RowTests } from '../pane/dim.ts'
import { groundTheme } from '../pane/ground.ts'
import type { PlacesLabels } from '../pane/labels.ts'
import type { Composition } from '../pane/model.ts'
import { composePicture } from '../pane/picture.ts'
import type { Scene } from '../scene/scene.ts'
import { type Conditions, rowsWhere } from '../table/group/where.ts'
import {
  allTests,
  maskOf,
  type RowMask,
  type RowTest,
  rootOf,
  rowsTest,
  rowTest,
  selectionsOf,
} from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import { blend } from '../theme/contrast.ts'
import { themeOf } from '../theme/house.ts'
import { type Measure, rememberWidths } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { type Tongue, tongueOf } from '../words/tongue.ts'
import type { Chart } from './chart.ts'
import { bindAll, chartsOf, columnFindings, wordsOf } from './charts.ts'
import { Spread } from './spread.ts'

/** What another chart has a view explain. */
export interface Detail {
  root: Table
  serials: ArrayLike<number>
  /** The colour of which categories are shades. */
  color: string | undefined
}

/** How much of the ground is in each shade of a colour, so that neighbours differ. */
const SHADES = [0, 0.42, 0.2, 0.56, 0.1, 0.5, 0.3, 0.64]

/** Shades of one colour, the first being the colour itself. */
const shadesOf = (color: string, theme: Theme): string[] =>
  SHADES.map(share => blend(color, theme.background, share))

/** Domains that reach as far as those of other charts with the same scales. */
function widenedBy(
  domains: Map<string, Domain>,
  outer: ReadonlyMap<string, { min: number; max: number }>,
): Map<string, Domain> {
  const out = new Map(domains)
  for (const [name, { min, max }] of outer) {
    const domain = domains.get(name)
    if (domain) out.set(name, { ...domain, min: Math.min(domain.min, min), max: Math.max(domain.max, max) })
  }
  return out
}

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
  /** How the chart speaks in its frame. */
  readonly tongue: ReadonlySignal<Tongue>
  /** The scene with what is not selected dimmed. */
  readonly shown: ReadonlySignal<Scene>
  /** The key of a legend's entry that the person looks at: the other series fade. */
  readonly preview: Signal<string | undefined> = signal(undefined)
  /** Ends of shared scales that other charts on the page need, by scale name. */
  readonly outer: Signal<ReadonlyMap<string, { min: number; max: number }>> = signal(new Map())
  /** What another chart has this one explain: rows of the root table, and the colour they have there. */
  readonly detail: Signal<Detail | undefined> = signal(undefined)
  /** The only rows of a table that are drawn: those of a period. */
  readonly only: Signal<{ table: Table; rows: Int32Array } | undefined> = signal(undefined)
  /** Ends of the shared scales as this chart alone would have them. */
  readonly own: ReadonlySignal<ReadonlyMap<string, { min: number; max: number }>>
  /** Ends of the position scales as this chart alone would have them; those of categories are left out. */
  readonly ends: ReadonlySignal<ReadonlyMap<string, { min: number; max: number }>>
  private readonly found: ReadonlySignal<readonly Finding[]>
  /** First fits of scales that keep theirs. */
  private readonly fits = new WeakMap<Chart, Map<string, Domain>>()

  constructor(chart: Chart | Spread, state: State, frame: Frame) {
    checkState(state)
    this.chart = signal(chart)
    this.state = signal(state)
    this.frame = signal(frame)
    const framed = computed(() => {
      const frame = checkedFrame(this.frame.value)
      const own = typeof frame.theme === 'object' ? frame.theme : undefined
      this.first.parts.checkHouse?.(frame.house, own)
      return frame
    })
    const theme = computed(() => {
      const { theme: wish, house } = framed.value
      const theme = groundTheme(themeOf(wish, house), this.chart.value.description.background, house)
      const color = this.detail.value?.color
      return color === undefined ? theme : { ...theme, colors: shadesOf(color, theme) }
    })
    const locale = computed(() => framed.value.locale ?? framed.value.house?.locale ?? 'en')
    const houseWords = computed(() => framed.value.house?.words)
    const tongue = computed(() => tongueOf(locale.value, houseWords.value))
    this.tongue = tongue
    const hidden = computed(() => (this.state.value.hidden ?? []).join('\u001e'))
    const zoom = computed(() => this.state.value.zoom)
    const source = computed(() => framed.value.measure)
    const measure: ReadonlySignal<Measure> = computed(() => rememberWidths(source.value))
    const shapes: ReadonlySignal<ShapedDrawing[][]> = computed(() => {
      for (const table of tablesOf(this.chart.value)) table.version.value
      return chartsOf(this.chart.value).map(one => shapeAll(one.resolved, tongue.value, this.filterFor(one)))
    })
    const bounds: ReadonlySignal<Bound[]> = computed(() => {
      const keys = new Set(hidden.value === '' ? [] : hidden.value.split('\u001e'))
      return bindAll(this.chart.value, shapes.value, theme.value, tongue.value, keys)
    })
    const settled = computed(() => this.settleAll(this.chart.value, bounds.value))
    const alone = computed(() => settled.value.map(one => one.value))
    this.ends = computed(() => {
      const out = new Map<string, { min: number; max: number }>()
      for (const [scale, { kind, min, max }] of alone.value[0])
        if (kind.name !== 'category' && bounds.value[0].drawings.some(one => one.marks.length > 0))
          out.set(scale, { min, max })
      return out
    })
    this.own = computed(() => {
      const names = sharedScales(this.first.description)
      return new Map([...this.ends.value].filter(([scale]) => names.has(scale)))
    })
    const domains: ReadonlySignal<Map<string, Domain>[]> = computed(() =>
      this.outer.value.size === 0 ? alone.value : alone.value.map(map => widenedBy(map, this.outer.value)),
    )
    const headings = computed(() => {
      for (const table of tablesOf(this.chart.value)) table.version.value
      return chartsOf(this.chart.value).map(chart => {
        const { resolved, table, description } = chart
        return fillHeading(
          resolved.heading,
          table,
          rowsPassing(
            table,
            rowsWhere(table, description.where as Conditions | undefined, 'where'),
            this.filterFor(chart)?.(table),
          ),
          locale.value,
        )
      })
    })
    const words = computed(() => wordsOf(this.chart.value, bounds.value, headings.value))
    this.composition = computed(() => {
      const shown = this.chart.value
      return composePicture({
        charts: chartsOf(shown).map((one, i) => ({
          description: { ...one.resolved.description, ...headings.value[i] },
          bound: bounds.value[i],
          domains: domains.value[i],
          outside: settled.value[i].findings.some(finding => finding.code === OUTSIDE),
          labels: one.resolved.labels as PlacesLabels | undefined,
        })),
        background: shown.description.background,
        spread: shown instanceof Spread ? shown.description : undefined,
        frame: framed.value,
        tongue: tongue.value,
        theme: theme.value,
        measure: measure.value,
        words: words.value,
        zoom: zoom.value,
        preview: this.preview.value,
      })
    })
    // Each step tells what it found itself; here all of it comes together, from the newest run of each.
    this.found = computed(() => {
      for (const table of tablesOf(this.chart.value)) table.version.value
      return [
        ...new Set(
          chartsOf(this.chart.value).flatMap(chart => chart.resolved.drawings.flatMap(columnFindings)),
        ),
        ...chartsOf(this.chart.value).flatMap(chart => chart.resolved.findings),
        ...bounds.value.flatMap((bound, i) => [...bound.findings, ...settled.value[i].findings]),
        ...this.composition.value.panes.flatMap(pane => pane.findings),
      ]
    })
    this.shown = computed(() => {
      const composition = this.composition.value
      return dimmed(composition, this.masksFor(composition, this.state.value.selected))
    })
  }

  /** The chart that speaks for all of a spread. */
  get first(): Chart {
    return chartsOf(this.chart.value)[0]
  }

  /** The table to which selections made in this view belong. */
  get root(): Table {
    return rootOf(this.first.table)
  }

  get scene(): Scene {
    return this.shown.value
  }

  /** The rows that a chart draws at all: those selected in other charts where it filters by them, and what it explains. */
  private filterFor(chart: Chart): RowFilter | undefined {
    const detail = this.detail.value
    const filters = chart.description.respond === 'filter'
    const only = this.only.value
    if (!filters && !detail && !only) return undefined
    return table => {
      const own = only?.table === table ? only.rows : undefined
      const root = rootOf(table)
      const masks: RowMask[] = []
      if (detail && detail.root === root) masks.push(maskOf(root, detail.serials))
      const others = filters ? this.othersOn(root).value : undefined
      if (others) masks.push(others)
      const tests: RowTest[] = masks.map(mask => rowTest(table, mask))
      if (own) tests.push(rowsTest(own, table.length))
      return tests.length === 0 ? undefined : allTests(tests)
    }
  }

  private readonly others = new Map<Table, ReadonlySignal<RowMask | undefined>>()

  /** What the other charts on a root table have selected. */
  private othersOn(root: Table): ReadonlySignal<RowMask | undefined> {
    let found = this.others.get(root)
    if (!found) {
      found = selectionsOf(root).byOthers(this)
      this.others.set(root, found)
    }
    return found
  }

  /** Makes an effect run again when others select, without composing anything. */
  followOthers(): void {
    for (const chart of chartsOf(this.chart.value))
      if (chart.description.respond !== 'ignore')
        for (const table of chart.resolved.tables) void this.othersOn(rootOf(table)).value
  }

  /** By drawing: the test that its rows must pass not to be dimmed. */
  private masksFor({ panes }: Composition, selected: State['selected']): RowTests {
    const own = selected?.length ? maskOf(this.root, selected) : undefined
    const tests: RowTests = new Map()
    panes.forEach((pane, i) => {
      const chart = chartsOf(this.chart.value)[i] ?? this.first
      const highlights = (chart.description.respond ?? 'highlight') === 'highlight'
      for (const one of pane.bound.drawings) {
        const { table } = one.drawing
        const root = rootOf(table)
        const others = highlights ? this.othersOn(root).value : undefined
        const masks = [root === this.root ? own : undefined, others].filter(mask => mask !== undefined)
        if (masks.length === 0) continue
        tests.set(one, allTests(masks.map(mask => rowTest(table, mask))))
      }
    })
    return tests
  }

  /** What a person would regret, about the data and the description. */
  get findings(): readonly Finding[] {
    return this.found.value
  }

  private settleAll(shown: Chart | Spread, bounds: Bound[]): Found<Map<string, Domain>>[] {
    const all = chartsOf(shown).map((chart, i) => {
      const { scales } = chart.resolved.description
      const fits = this.fits.get(chart) ?? new Map<string, Domain>()
      this.fits.set(chart, fits)
      const findings: Finding[] = []
      const value = new Map(
        [...bounds[i].scales].map(([name, input]) => {
          const kept = scales?.[name]?.fixed ? fits.get(name) : undefined
          const settled = settleDomain(input, scales?.[name], kept)
          findings.push(...settled.findings)
          if (input.uses.some(use => use.positions.at.length > 0)) fits.set(name, kept ?? settled.value)
          return [name, settled.value] as const
        }),
      )
      return { value, findings }
    })
    for (const name of shown instanceof Spread ? (shown.description.share ?? []) : []) {
      const own = all.map(one => one.value.get(name)).filter(domain => domain !== undefined)
      const joint = {
        min: Math.min(...own.map(domain => domain.min)),
        max: Math.max(...own.map(domain => domain.max)),
      }
      for (const { value } of all) {
        const domain = value.get(name)
        if (domain) value.set(name, { ...domain, ...joint })
      }
    }
    return all
  }
}

/** The scene of a chart or a spread for a state and a frame. */
export function compose(chart: Chart | Spread, state: State, frame: Frame): Scene {
  return new View(chart, state, frame).scene
}
