import {
  type Chart,
  DapploError,
  type Finding,
  type House,
  type Scene,
  type Spread,
  type State,
  type Theme,
} from '@dapplo/core/small'
import { LiveChart } from './live.ts'
import type { Part } from './part.ts'
import type { FilmOptions } from './record.ts'
import { byId } from './registry.ts'

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
  /** A button in the corner with a menu: save, copy, print, see the data, reset. Default false. */
  menu?: boolean
  /** What the chart can do beside showing its picture and reading values. Default everything; from `dapplo/small` nothing. */
  parts?: readonly Part[]
  /** Called once the chart is off the page. */
  onDestroy?: () => void
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
  /** Tells of every change of the state, until the returned function is called. What a listener throws is reported, and breaks nothing. */
  watch(listener: (state: State) => void): () => void
  /** Plays a chart that has periods to play through, from where it is; or stops it. */
  play(): void
  pause(): void
  /** The selected rows of the table, as records. */
  selectedRows(): unknown[]
  /** The picture as it will stand when nothing moves: a PNG of twice the size, or an SVG document. */
  toPng(): Promise<Blob>
  toSvg(): string
  /**
   * A film of the chart as WebM, made while it plays through its periods, or while what `during` does changes it. Throws
   * `no-film` where there is nothing to film or the browser cannot record; `signal` ends it.
   */
  toWebm(options?: FilmOptions): Promise<Blob>
  /** The values that are shown, as CSV. */
  toCsv(): string
  /** Takes the chart off the page, with every listener and element that it brought. */
  destroy(): void
}

const mounted = new WeakMap<Element, Live>()

/** Makes the `mount` of a face of the library: its parts are all that a bundle needs to hold. */
export function mountMaker(parts: readonly Part[]) {
  return function mount(
    chart: Chart | Spread,
    place: string | HTMLElement,
    options: MountOptions = {},
  ): Live {
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
    const live = new LiveChart(chart, element, {
      parts,
      ...options,
      onDestroy: () => {
        if (mounted.get(element) === live) mounted.delete(element)
        options.onDestroy?.()
      },
    })
    mounted.set(element, live)
    return live
  }
}

/** The chart on the page whose description has this id, however it came there; undefined where there is none. */
export function chartById(id: string): Live | undefined {
  const found = byId(id)
  return found instanceof LiveChart ? found : undefined
}
