import { computed, effect, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import { OUTSIDE } from '../bind/domain.ts'
import { fillHeading } from '../bind/heading-values.ts'
import { shapesOf } from '../bind/shapes.ts'
import { sharedScales } from '../describe/description.ts'
import { checkedFrame, type Frame, type State } from '../describe/frame.ts'
import { checkState } from '../describe/state-check.ts'
import type { Finding } from '../finding/error.ts'
import type { LabelSides } from '../guide/bar-labels.ts'
import { dimmed } from '../pane/dim.ts'
import { groundTheme } from '../pane/ground.ts'
import type { PlacesLabels } from '../pane/label/labels.ts'
import type { Composition, Insets } from '../pane/model.ts'
import { composePicture } from '../pane/picture.ts'
import type { Scene } from '../scene/scene.ts'
import { rootOf } from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import { blend } from '../theme/contrast.ts'
import { themeOf } from '../theme/house.ts'
import { withCommon } from '../theme/set-house.ts'
import { rememberWidths } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { type Tongue, tongueOf } from '../words/tongue.ts'
import { adviceOn } from './advised.ts'
import { Answers } from './answers.ts'
import type { Chart } from './chart.ts'
import {
  bindAll,
  chartsOf,
  columnFindings,
  isSpread,
  speakerOf,
  splitOf,
  tablesOf,
  wordsOf,
} from './charts.ts'
import { type Ends, Fits, type ScaleEnds, widenedBy } from './fits.ts'
import { Latest } from './latest.ts'
import type { SplitsCharts } from './panes.ts'
import { type Detail, Responses } from './responses.ts'
import type { Spread } from './spread.ts'

/** How much of the ground is in each shade of a colour, so that neighbours differ. */
const SHADES = [0, 0.42, 0.2, 0.56, 0.1, 0.5, 0.3, 0.64]

/** Shades of one colour, the first being the colour itself. */
const shadesOf = (color: string, theme: Theme): string[] =>
  SHADES.map(share => blend(color, theme.background, share))

/**
 * A chart or a spread in a frame, kept up to date: rows are shaped once for each state of their table, values placed
 * once for each set of hidden series, and only the layout is redone when the frame or the zoom changes.
 */
export class View {
  readonly chart: Signal<Chart | Spread>
  readonly state: Signal<State>
  readonly frame: Signal<Frame>
  /** What is in the picture: the chart, or the spread of its panes. */
  readonly pictured: ReadonlySignal<Chart | Spread>
  readonly composition: ReadonlySignal<Composition>
  /** How the chart speaks in its frame. */
  readonly tongue: ReadonlySignal<Tongue>
  /** The scene with what is not selected dimmed. */
  readonly shown: ReadonlySignal<Scene>
  /** The key of a legend's entry that the person looks at: the other series fade. */
  readonly preview: Signal<string | undefined> = signal(undefined)
  /** How many entries of a legend without room for all are passed over: a person leafs through it. */
  readonly listedFrom: Signal<number> = signal(0)
  /** Ends of shared scales that other charts on the page need, by scale name. */
  readonly outer: Signal<Ends> = signal(new Map())
  /** Room beside its plot that other charts on the page need, with which it lines up. */
  readonly beside: Signal<Insets | undefined> = signal(undefined)
  /** What another chart has this one explain: rows of the root table, and the colour they have there. */
  readonly detail: Signal<Detail | undefined> = signal(undefined)
  /** The only rows of a table that are drawn: those of a period. */
  readonly only: Signal<{ table: Table; rows: Int32Array } | undefined> = signal(undefined)
  /** Ends of the shared scales as this chart alone would have them. */
  readonly own: ReadonlySignal<Ends>
  /** Ends of the position scales as this chart alone would have them; those of categories are left out. */
  readonly ends: ReadonlySignal<Ends>
  private readonly found: ReadonlySignal<readonly Finding[]>
  private readonly splitting: ReadonlySignal<boolean>
  private splitter: ReturnType<SplitsCharts['splitter']> | undefined
  private readonly fits = new Fits()
  /** By chart: where labels stood last, so that they do not jump from side to side as data change. */
  private readonly sides = new WeakMap<Chart, LabelSides>()
  private readonly responses = new Responses(this)
  private readonly dressing = new Latest<Theme>()
  private readonly answers: Answers

  constructor(chart: Chart | Spread, state: State, frame: Frame) {
    checkState(state)
    this.chart = signal(chart)
    this.state = signal(state)
    this.frame = signal(frame)
    const framed = computed(() => {
      const wished = this.frame.value
      const house = withCommon(wished.house)
      const frame = checkedFrame(house === wished.house ? wished : { ...wished, house })
      const own = typeof frame.theme === 'object' ? frame.theme : undefined
      this.first.parts.checkHouse?.(frame.house, own)
      return frame
    })
    const locale = computed(() => framed.value.locale ?? framed.value.house?.locale ?? 'en')
    const houseWords = computed(() => framed.value.house?.words)
    const tongue = computed(() => tongueOf(locale.value, houseWords.value))
    this.tongue = tongue
    const split = computed(() => {
      for (const table of tablesOf(this.chart.value)) table.version.value
      this.splitter ??= (this.first.parts.panes as SplitsCharts | undefined)?.splitter()
      return this.splitter?.(this.chart.value, tongue.value) ?? { value: this.chart.value, findings: [] }
    })
    this.pictured = computed(() => split.value.value)
    this.splitting = computed(() => split.value.waiting === true)
    const zoom = computed(() => this.state.value.zoom)
    const answers = new Answers(
      this.pictured,
      tongue,
      chart => this.responses.filterFor(chart, this.detail.value, this.only.value),
      zoom,
    )
    this.answers = answers
    const theme = computed(() => {
      const { theme: wish, house } = framed.value
      const { shown } = answers.now.value
      const { background } = (splitOf(shown) ?? shown).description
      const color = this.detail.value?.color
      // The same theme stays the same object: all that has colours would else be bound anew in every other frame.
      return this.dressing.get([wish, house, background, color], () => {
        const theme = groundTheme(themeOf(wish, house), background, house)
        return color === undefined ? theme : { ...theme, colors: shadesOf(color, theme) }
      })
    })
    const hidden = computed(() => (this.state.value.hidden ?? []).join('\u001e'))
    const source = computed(() => framed.value.measure)
    const measure = computed(() => rememberWidths(source.value))
    const shapes = computed(() =>
      answers.now.value.charts.map(({ drawings }) => shapesOf(drawings, tongue.value)),
    )
    const bounds = computed(() => {
      const keys = new Set(hidden.value === '' ? [] : hidden.value.split('\u001e'))
      return bindAll(answers.now.value.shown, shapes.value, theme.value, tongue.value, keys)
    })
    const settled = computed(() => this.fits.settle(answers.now.value.shown, bounds.value))
    this.ends = computed(() => {
      const out = new Map<string, ScaleEnds>()
      for (const [scale, { kind, min, max, round }] of settled.value[0].value)
        if (kind.name !== 'category' && bounds.value[0].drawings.some(({ marks }) => marks.length > 0))
          out.set(scale, { min, max, round })
      return out
    })
    this.own = computed(() => {
      const names = sharedScales(this.first.description)
      return new Map([...this.ends.value].filter(([scale]) => names.has(scale)))
    })
    const domains = computed(() =>
      settled.value.map(({ value }) =>
        this.outer.value.size === 0 ? value : widenedBy(value, this.outer.value),
      ),
    )
    const headings = computed(() => {
      const { shown, charts } = answers.now.value
      return chartsOf(shown).map(({ resolved }, i) =>
        fillHeading(resolved.heading, charts[i].heading, locale.value),
      )
    })
    const headingOfAll = computed(() => {
      const { shown, heading } = answers.now.value
      return fillHeading(speakerOf(shown)?.resolved.heading ?? [], heading, locale.value)
    })
    const words = computed(() =>
      wordsOf(
        answers.now.value.shown,
        bounds.value,
        headings.value.map(({ words }) => words),
        headingOfAll.value.words,
      ),
    )
    this.composition = computed(() => {
      const { shown } = answers.now.value
      const split = splitOf(shown)
      return composePicture({
        charts: chartsOf(shown).map((chart, i) => ({
          description: { ...chart.resolved.description, ...headings.value[i].words },
          figures: headings.value[i].figures,
          bound: bounds.value[i],
          domains: domains.value[i],
          outside: settled.value[i].findings.some(finding => finding.code === OUTSIDE),
          labels: chart.resolved.labels as PlacesLabels | undefined,
          sides: this.sidesOf(chart),
          leftOut: chart.parts.advise?.words,
        })),
        background: (split ?? shown).description.background,
        spread: isSpread(shown)
          ? {
              ...shown.description,
              ...headingOfAll.value.words,
              figures: headingOfAll.value.figures,
              panes: split !== undefined,
              compose: shown.compose,
            }
          : undefined,
        frame: framed.value,
        tongue: tongue.value,
        theme: theme.value,
        measure: measure.value,
        words: words.value,
        zoom: zoom.value,
        preview: this.preview.value,
        listedFrom: this.listedFrom.value,
        beside: this.beside.value,
      })
    })
    // Each step tells what it found itself; here all of it comes together, from the newest run of each.
    this.found = computed(() => {
      const { shown, findings } = answers.now.value
      for (const table of tablesOf(shown)) table.version.value
      return [
        ...new Set(chartsOf(shown).flatMap(chart => chart.resolved.drawings.flatMap(columnFindings))),
        ...findings,
        ...split.value.findings,
        ...(this.first.parts.advise?.frame(framed.value, tablesOf(shown)) ?? []),
        ...chartsOf(shown).flatMap(chart => chart.resolved.findings),
        ...(isSpread(shown) && !shown.split ? (shown.speaker?.resolved.findings ?? []) : []),
        ...bounds.value.flatMap((bound, i) => [
          ...bound.findings,
          ...settled.value[i].findings,
          ...adviceOn(chartsOf(shown)[i], bound, settled.value[i].value),
        ]),
        ...this.composition.value.panes.flatMap(pane => pane.findings),
      ]
    })
    this.shown = computed(() => {
      const composition = this.composition.value
      const { selected } = this.state.value
      const charts = chartsOf(answers.now.value.shown)
      const tests = this.responses.masksFor(composition.panes, charts, { root: this.root, selected })
      return dimmed(composition, tests)
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

  /** Labels stand on the sides that they have in another view of the same charts by now, where they have room. */
  standLike(other: View): void {
    const others = chartsOf(other.answers.now.peek().shown)
    for (const [i, chart] of chartsOf(this.answers.now.peek().shown).entries()) {
      const sides = others[i] && other.sides.get(others[i])
      if (sides) this.sides.set(chart, new Map([...sides].map(([drawing, own]) => [drawing, new Map(own)])))
    }
  }

  private sidesOf(chart: Chart): LabelSides {
    const sides: LabelSides = this.sides.get(chart) ?? new Map()
    this.sides.set(chart, sides)
    return sides
  }

  get scene(): Scene {
    return this.shown.value
  }

  /** What a person would regret, about the data and the description. */
  get findings(): readonly Finding[] {
    return this.found.value
  }

  /** What newer answers failed with; nothing is composed for it. */
  get failures(): readonly Finding[] {
    return this.answers.now.value.findings
  }

  /** Whether values are on their way that the picture does not show yet. */
  get waiting(): boolean {
    return this.splitting.value || this.answers.now.value.waiting
  }

  /** Ends when no values are on their way. */
  settled(): Promise<void> {
    return until(() => !this.waiting)
  }

  /** Makes an effect run again when others select, or values arrive, without composing anything. */
  followOthers(): void {
    void this.answers.arrived.value
    this.responses.follow(chartsOf(this.chart.value))
  }
}

/** Ends when a condition over signals holds. */
function until(holds: () => boolean): Promise<void> {
  let stop = () => {}
  return new Promise<void>(done => {
    stop = effect(() => {
      if (holds()) done()
    })
  }).then(() => stop())
}

/** The scene of a chart or a spread for a state and a frame. */
export function compose(chart: Chart | Spread, state: State, frame: Frame): Scene {
  return new View(chart, state, frame).scene
}
