import {
  type Chart,
  DapploError,
  type Finding,
  type Frame,
  type House,
  type Scene,
  Spread,
  type State,
  type Theme,
  tablesOf,
  View,
} from '@dapplo/core/small'
import { effect } from '@preact/signals-core'
import { pageMeasure } from './measure.ts'
import { Player } from './player.ts'
import { Pointer } from './pointer.ts'
import { Stage } from './stage.ts'

export interface MountOptions {
  /** `auto` follows the person's setting. Default `day`. */
  theme?: 'day' | 'night' | 'auto' | Theme
  /** A BCP 47 language tag; default that of the element or the page, else `en`. */
  locale?: string
  /** The style of the application, over both themes. */
  house?: House
  /** Whether the theme's background is painted. Default true. */
  background?: boolean
  /** Height in pixels where the container has none of its own; default three fifths of the width. */
  height?: number
  state?: State
}

/** A chart on a page. */
export interface Live {
  /** The element that the chart fills. */
  readonly element: HTMLElement
  readonly chart: Chart | Spread
  /** What is on screen, mid-motion too. */
  readonly scene: Scene
  /** What the person has done; set it to do the same by program. */
  state: State
  /** What a person would regret about data and description. */
  readonly findings: readonly Finding[]
  /** Whether shapes are on their way. */
  readonly moving: boolean
  /** Glides to another chart. Throws what the chart's data make impossible, and then still shows the old one. */
  show(chart: Chart | Spread): void
  /** Changes theme, locale or background. */
  reframe(options: Pick<MountOptions, 'theme' | 'house' | 'locale' | 'background'>): void
  /** Takes the chart off the page, with every listener and element that it brought. */
  destroy(): void
}

const mounted = new WeakMap<Element, Live>()

/**
 * Shows a chart in an element, which it fills and whose size it follows. It moves when its tables change.
 * Mounting on an element that has a chart replaces that. Throws `no-element` when there is no such element.
 */
export function mount(chart: Chart | Spread, place: string | HTMLElement, options: MountOptions = {}): Live {
  const element = typeof place === 'string' ? document.querySelector<HTMLElement>(place) : place
  if (!element) {
    throw new DapploError(
      'no-element',
      `There is no element ${JSON.stringify(place)} on the page`,
      'mount',
      'Call mount after the element exists, or pass the element itself.',
    )
  }
  mounted.get(element)?.destroy()
  const live = new LiveChart(chart, element, options)
  mounted.set(element, live)
  return live
}

class LiveChart implements Live {
  readonly element: HTMLElement
  private readonly view: View
  private readonly stage: Stage
  private readonly player: Player
  private readonly pointer: Pointer
  private options: MountOptions
  private readonly undo: (() => void)[] = []
  private due = 0
  private still = true
  private fonts = 0
  private gone = false

  constructor(chart: Chart | Spread, element: HTMLElement, options: MountOptions) {
    this.element = element
    this.options = options
    this.stage = new Stage(element, options.height)
    this.view = new View(chart, options.state ?? {}, this.frame())
    this.player = new Player(scene => this.stage.paint(scene, this.density))
    try {
      this.player.appear(this.view.scene, this.motion)
    } catch (error) {
      this.stage.remove()
      throw error
    }
    this.stage.name(this.view.scene)
    this.pointer = new Pointer(
      this.stage,
      () => this.view.composition.value,
      () => !this.player.moving && this.first.description.tooltip !== false,
    )
    this.listen()
  }

  get chart(): Chart | Spread {
    return this.view.chart.value
  }

  get scene(): Scene {
    return this.player.scene
  }

  get state(): State {
    return this.view.state.value
  }

  set state(state: State) {
    this.view.state.value = state
  }

  get findings(): readonly Finding[] {
    return this.view.findings
  }

  get moving(): boolean {
    return this.player.moving
  }

  show(chart: Chart | Spread): void {
    const before = this.view.chart.value
    this.view.chart.value = chart
    try {
      void this.view.scene
    } catch (error) {
      this.view.chart.value = before
      throw error
    }
  }

  reframe(options: Pick<MountOptions, 'theme' | 'house' | 'locale' | 'background'>): void {
    this.options = { ...this.options, ...options }
    this.refresh()
  }

  destroy(): void {
    if (this.gone) return
    this.gone = true
    cancelAnimationFrame(this.due)
    for (const undo of this.undo) undo()
    this.player.stop()
    this.pointer.remove()
    this.stage.remove()
    if (mounted.get(this.element) === this) mounted.delete(this.element)
  }

  /** The chart that speaks for all of a spread. */
  private get first(): Chart {
    const { chart } = this
    return chart instanceof Spread ? chart.charts[0] : chart
  }

  private get density(): number {
    return window.devicePixelRatio || 1
  }

  private get motion(): { duration: number; delay: number; easing: string } | undefined {
    const { motion } = this.first.description
    if (motion === false || matchMedia('(prefers-reduced-motion: reduce)').matches) return undefined
    return {
      duration: motion?.duration ?? 400,
      delay: motion?.delay ?? 0,
      easing: motion?.easing ?? 'ease-in-out',
    }
  }

  private frame(): Frame {
    const { theme = 'day', house, background } = this.options
    const locale = this.options.locale ?? (this.element.closest('[lang]')?.getAttribute('lang') || 'en')
    const night = theme === 'auto' && matchMedia('(prefers-color-scheme: dark)').matches
    const family =
      typeof theme === 'object' ? theme.font : 'Inter, system-ui, -apple-system, "Segoe UI", sans-serif'
    return {
      ...this.stage.size(),
      density: this.density,
      theme: theme === 'auto' ? (night ? 'night' : 'day') : theme,
      locale,
      house,
      background,
      measure: pageMeasure(family),
    }
  }

  private listen(): void {
    // Only what the picture depends on is read here; the work is done once a frame, however often it changes.
    this.undo.push(
      effect(() => {
        for (const table of tablesOf(this.view.chart.value)) table.version.value
        this.view.state.value
        this.view.frame.value
        this.schedule()
      }),
    )
    cancelAnimationFrame(this.due)
    this.due = 0
    const sizes = new ResizeObserver(() => this.refresh())
    sizes.observe(this.element)
    this.undo.push(() => sizes.disconnect())
    for (const query of ['(prefers-color-scheme: dark)', `(resolution: ${this.density}dppx)`]) {
      const list = matchMedia(query)
      const changed = () => this.refresh()
      list.addEventListener('change', changed)
      this.undo.push(() => list.removeEventListener('change', changed))
    }
    const loaded = () => {
      // Fonts that came late have other widths.
      this.fonts++
      this.refresh()
    }
    document.fonts?.addEventListener('loadingdone', loaded)
    this.undo.push(() => document.fonts?.removeEventListener('loadingdone', loaded))
  }

  /** Takes the frame anew: size, density, theme. A new frame is shown at once, without motion. */
  private refresh(): void {
    if (this.gone) return
    const next = this.frame()
    const now = this.view.frame.peek()
    const same = (['width', 'height', 'density', 'theme', 'house', 'locale', 'background'] as const).every(
      key => next[key] === now[key],
    )
    if (same && this.fonts === 0) return
    this.fonts = 0
    this.still = false
    this.view.frame.value = next
  }

  private schedule(): void {
    this.due ||= requestAnimationFrame(() => {
      this.due = 0
      this.redraw()
    })
  }

  private redraw(): void {
    if (this.gone) return
    const scene = this.view.scene
    const motion = this.motion
    if (this.still && motion) this.player.glide(scene, motion)
    else this.player.jump(scene)
    this.still = true
    this.stage.name(scene)
    this.pointer.refresh()
  }
}
