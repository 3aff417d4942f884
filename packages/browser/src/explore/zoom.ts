import type { Composition, Pane } from '@dapplo/core/internal'

/** Ends of scales, in data units: the part of a chart that is in view. */
export type Zoom = Readonly<Record<string, readonly [number, number]>>

/** The directions in which a chart may be zoomed. */
export type Directions = { x: boolean; y: boolean }

export const directionsOf = (wish: false | 'x' | 'y' | 'xy' | undefined): Directions => ({
  x: wish === 'x' || wish === 'xy',
  y: wish === 'y' || wish === 'xy',
})

/** The narrowest that a view may be, as a share of the numbers it shows: beyond that, numbers cannot be told apart. */
const NARROWEST = 1e-12

/** The scales of a pane that run in the wished directions. */
function scalesOf(pane: Pane, directions: Directions) {
  return [...pane.bound.scales.values()]
    .filter(input => directions[input.role])
    .map(input => ({ input, scale: pane.scales.get(input.name)! }))
    .filter(({ scale }) => scale !== undefined && scale.factor !== 0)
}

/**
 * Ends within the whole; `whole` where they are all of it, undefined where they would show nothing. All of them are places
 * on the line that the scale stretches, so that a logarithmic one keeps its decades while it is moved.
 */
function limited(
  [low, high]: [number, number],
  [min, max]: readonly [number, number],
): [number, number] | 'whole' | undefined {
  const span = high - low
  if (!(span > 0) || !Number.isFinite(span)) return undefined
  if (span >= (max - min) * 0.9999) return 'whole'
  if (low < min) return [min, min + span]
  if (high > max) return [max - span, max]
  return [low, high]
}

/** Whether there is anything to see between two values. */
const isWide = ([low, high]: readonly [number, number], least: number): boolean =>
  high - low > Math.max(least, Math.max(Math.abs(low), Math.abs(high)) * NARROWEST)

/** Zooming and moving of one pane, in pixels of the chart. */
export class Zooming {
  /** How far scales reach while they are not zoomed, ends at neat numbers included. */
  private readonly whole = new Map<string, readonly [number, number]>()

  /** Remembers how far scales reach. */
  learn({ panes }: Composition, zoom: Zoom): void {
    for (const pane of panes)
      for (const [name, scale] of pane.scales)
        if (!Object.hasOwn(zoom, name)) this.whole.set(name, scale.domain)
  }

  /** By a factor (below 1 is nearer) around a point, and moved by some pixels. */
  around(
    pane: Pane,
    zoom: Zoom,
    directions: Directions,
    factor: number,
    center: { x: number; y: number },
    moved: { x: number; y: number } = { x: 0, y: 0 },
  ): Zoom {
    const { plot } = pane
    const edge = (start: number, length: number, at: number, shift: number): [number, number] => [
      at + (start - at) * factor - shift * factor,
      at + (start + length - at) * factor - shift * factor,
    ]
    return this.to(pane, zoom, directions, {
      x: edge(plot.x, plot.width, center.x, moved.x),
      y: edge(plot.y, plot.height, center.y, moved.y),
    })
  }

  /** To a box of pixels, whose edges become those of the plot. */
  to(
    pane: Pane,
    zoom: Zoom,
    directions: Directions,
    edges: { x: readonly [number, number]; y: readonly [number, number] },
  ): Zoom {
    const out: Record<string, readonly [number, number]> = { ...zoom }
    for (const { input, scale } of scalesOf(pane, directions)) {
      const { kind, factor, offset, domain } = scale
      const rising = (a: number, b: number): [number, number] => (a < b ? [a, b] : [b, a])
      const [from, to] = edges[input.role].map(pixel => (pixel - offset) / factor)
      const whole = this.whole.get(input.name) ?? pane.full.get(input.name) ?? domain
      const kept = limited(rising(from, to), rising(kind.forward(whole[0]), kind.forward(whole[1])))
      if (kept === 'whole') delete out[input.name]
      else if (kept) {
        const ends = rising(kind.backward(kept[0]), kind.backward(kept[1]))
        if (isWide(ends, kind.name === 'category' ? 1 : 0)) out[input.name] = ends
      }
    }
    return out
  }
}
