import { computed, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import type { Finding } from '../finding/error.ts'
import type { Scene } from '../scene/scene.ts'
import { type Measure, rememberWidths } from '../theme/measure.ts'
import { day, night, type Theme } from '../theme/theme.ts'
import { type Bound, bind } from './bind.ts'
import type { Chart } from './chart.ts'
import { type Composition, composeScene } from './compose.ts'
import { describe } from './describe.ts'
import { type Domain, settleDomain } from './domain.ts'
import type { Frame, State } from './frame.ts'
import type { ResolvedDrawing } from './resolve.ts'
import { type ShapedDrawing, shapeAll } from './shapes.ts'

const themeOf = (theme: Frame['theme']): Theme =>
  theme === undefined || theme === 'day' ? day : theme === 'night' ? night : theme

/**
 * A chart in a frame, kept up to date: rows are shaped once for each state of their table, values placed once for each
 * set of hidden series, and only the layout is redone when the frame or the zoom changes.
 */
export class View {
  readonly chart: Signal<Chart>
  readonly state: Signal<State>
  readonly frame: Signal<Frame>
  readonly composition: ReadonlySignal<Composition>
  private readonly bound: ReadonlySignal<Bound>

  constructor(chart: Chart, state: State, frame: Frame) {
    this.chart = signal(chart)
    this.state = signal(state)
    this.frame = signal(frame)
    const theme = computed(() => themeOf(this.frame.value.theme))
    const locale = computed(() => this.frame.value.locale ?? 'en')
    const hidden = computed(() => (this.state.value.hidden ?? []).join('\u001e'))
    const zoom = computed(() => this.state.value.zoom)
    const source = computed(() => this.frame.value.measure)
    const measure: ReadonlySignal<Measure> = computed(() => rememberWidths(source.value))
    const shapes: ReadonlySignal<ShapedDrawing[]> = computed(() => {
      const { resolved } = this.chart.value
      for (const table of resolved.tables) table.version.value
      return shapeAll(resolved)
    })
    this.bound = computed(() => {
      const keys = hidden.value === '' ? [] : hidden.value.split('\u001e')
      return bind(shapes.value, this.chart.value.description, theme.value, locale.value, new Set(keys))
    })
    const domains: ReadonlySignal<Map<string, Domain>> = computed(() => {
      const { scales } = this.chart.value.description
      return new Map(
        [...this.bound.value.scales].map(([name, input]) => [
          name,
          settleDomain(input, scales?.[name], this.bound.value),
        ]),
      )
    })
    const words = computed(() => describe(this.chart.value.description, this.bound.value, locale.value))
    this.composition = computed(() =>
      composeScene({
        description: this.chart.value.description,
        bound: this.bound.value,
        domains: domains.value,
        frame: this.frame.value,
        theme: theme.value,
        measure: measure.value,
        words: words.value,
        zoom: zoom.value,
      }),
    )
  }

  get scene(): Scene {
    return this.composition.value.scene
  }

  /** What a person would regret, about the data and the description. */
  get findings(): readonly Finding[] {
    const { bound } = this.composition.value
    const read = this.chart.value.resolved.drawings.flatMap(drawing =>
      columnsOf(drawing).flatMap(name =>
        drawing.table.findings.filter(finding => finding.path === `columns.${name}`),
      ),
    )
    return [...new Set(read), ...bound.findings]
  }
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

/** The scene of a chart for a state and a frame. */
export function compose(chart: Chart, state: State, frame: Frame): Scene {
  return new View(chart, state, frame).scene
}
