import { type Chart, DapploError, type Spread } from '@dapplo/core/small'
import type { Live, MountOptions } from '../live/model.ts'
import { elementAt } from '../live/mount.ts'
import { Sign, type WaitingSigns } from './sign.ts'

/** A chart that is shown once it is there. */
export interface AwaitedChart<R = any> {
  /** The chart on the page; undefined until it is there. */
  readonly live: Live<R> | undefined
  /** The chart, once it is there for the first time: also after tries that failed. */
  readonly ready: Promise<Live<R>>
  /** Makes the chart anew, as after news of its data: the one before stays until then, and stays where that fails. */
  again(): void
  /** Takes it off the page, or calls off what is on its way. */
  destroy(): void
}

/** What is wrong, in a sentence. */
export const sentenceOf = (error: unknown): string =>
  error instanceof DapploError ? error.sentence : error instanceof Error ? error.message : String(error)

/** Makes the `mountWhenReady` of a `mount`. */
export function whenReadyMaker(
  mount: (chart: Chart | Spread, place: HTMLElement, options: MountOptions) => Live,
) {
  return function mountWhenReady<R = any>(
    make: (signal: AbortSignal) => Chart<R> | Spread | Promise<Chart<R> | Spread>,
    place: string | HTMLElement,
    { loading, failed, ...options }: MountOptions & WaitingSigns = {},
  ): AwaitedChart<R> {
    const element = elementAt(place)
    const sign = new Sign(element, () => ({ ...options, loading, failed }))
    let live: Live | undefined
    let turn: AbortController | undefined
    let arrived: (live: Live) => void = () => {}
    const ready = new Promise<Live>(resolve => {
      arrived = resolve
    })
    const again = async () => {
      turn?.abort()
      const own = new AbortController()
      turn = own
      sign.loading(live !== undefined)
      try {
        const chart = await make(own.signal)
        if (own.signal.aborted) return
        sign.clear()
        if (live) live.show(chart)
        else {
          live = mount(chart, element, options)
          arrived(live)
        }
      } catch (error) {
        if (!own.signal.aborted) sign.failed(sentenceOf(error), () => void again())
      }
    }
    void again()
    return {
      get live() {
        return live
      },
      ready,
      again: () => void again(),
      destroy: () => {
        turn?.abort()
        sign.clear()
        live?.destroy()
        live = undefined
      },
    }
  }
}
