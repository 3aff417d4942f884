import { type Chart, DapploError, type Spread } from '@dapplo/core/small'
import { LiveChart } from './live.ts'
import { PageMember } from './member.ts'
import type { Live, MountOptions, Part } from './model.ts'
import { byId } from './registry.ts'

const mounted = new WeakMap<Element, Live>()

/** Makes the `mount` of a face of the library: its parts are all that a bundle needs to hold. */
export function mountMaker(parts: readonly Part[]) {
  return function mount<R = any>(
    chart: Chart<R> | Spread,
    place: string | HTMLElement,
    options: MountOptions = {},
  ): Live<R> {
    const element = elementAt(place)
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

/** The element itself, or that of a selector. Throws `no-element`. */
export function elementAt(place: string | HTMLElement): HTMLElement {
  const element = typeof place === 'string' ? document.querySelector<HTMLElement>(place) : place
  if (!element)
    throw new DapploError(
      'no-element',
      `There is no element ${JSON.stringify(place)} on the page`,
      'mount',
      'Call mount after the element exists, or pass the element itself.',
    )
  return element
}

/** The chart on the page whose description has this id, however it came there; undefined where there is none. */
export function chartById(id: string): Live | undefined {
  const found = byId(id)
  return found instanceof PageMember ? found.live : undefined
}
