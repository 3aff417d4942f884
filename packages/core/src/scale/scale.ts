import type { Zone } from '../table/cells/zone.ts'

/** How values become positions before they are stretched to pixels. */
export interface ScaleKind {
  name: 'linear' | 'log' | 'root' | 'signed log' | 'time' | 'category'
  forward(value: number): number
  backward(position: number): number
  /** Whether positions are the values themselves. */
  straight?: boolean
  /** Whether the value has a position at all. */
  allows(value: number): boolean
}

const all = () => true
const same = (value: number) => value

export const KINDS: Record<ScaleKind['name'], ScaleKind> = {
  linear: { name: 'linear', straight: true, forward: same, backward: same, allows: all },
  time: { name: 'time', straight: true, forward: same, backward: same, allows: all },
  /** Categories stand at whole numbers, each in the middle of a room of 1. */
  category: { name: 'category', straight: true, forward: same, backward: same, allows: all },
  log: { name: 'log', forward: Math.log10, backward: position => 10 ** position, allows: value => value > 0 },
  root: {
    name: 'root',
    forward: value => Math.sign(value) * Math.sqrt(Math.abs(value)),
    backward: position => Math.sign(position) * position * position,
    allows: all,
  },
  /** Logarithmic on both sides of zero, straight between -1 and 1: sign(v) · ln(1 + |v|). */
  'signed log': {
    name: 'signed log',
    forward: value => Math.sign(value) * Math.log1p(Math.abs(value)),
    backward: position => Math.sign(position) * Math.expm1(Math.abs(position)),
    allows: all,
  },
}

/** Places values on a line of pixels: pixel = factor · forward(value) + offset. */
export interface PositionScale {
  name: string
  kind: ScaleKind
  /** Ends in data units; for categories half a room outside the first and the last. */
  domain: readonly [number, number]
  /** The pixels of the ends. */
  range: readonly [number, number]
  factor: number
  offset: number
  map(value: number): number
  invert(pixel: number): number
  /** Categories in order; empty for other kinds. */
  words: readonly string[]
  /** Where days begin, on a time scale. */
  zone: Zone
}

/**
 * Pixels farther out than this are all alike: what is zoomed into by a factor that no eye ever asked for must still be
 * a number, in 32 bits too.
 */
const FARTHEST_PIXEL = 1e30

/** A pixel that can be drawn towards, however far out it lies; one that is none stays none. */
export const nearPixel = (pixel: number): number => Math.min(Math.max(pixel, -FARTHEST_PIXEL), FARTHEST_PIXEL)

/** Stretches a domain over pixels. A domain without width is shown in the middle. */
export function positionScale(parts: {
  name: string
  kind: ScaleKind
  domain: readonly [number, number]
  range: readonly [number, number]
  words?: readonly string[]
  zone: Zone
}): PositionScale {
  const { name, kind, domain, range, words = [], zone } = parts
  const low = kind.forward(domain[0])
  const high = kind.forward(domain[1])
  const stretch = (range[1] - range[0]) / (high - low)
  // Also where the domain is too narrow or too wide for a number to say how far it is stretched.
  const flat = !Number.isFinite(stretch) || stretch === 0
  const factor = flat ? 0 : stretch
  const offset = flat ? (range[0] + range[1]) / 2 : range[0] - factor * low
  const { forward, backward } = kind
  return {
    name,
    kind,
    domain,
    range,
    factor,
    offset,
    map: value => nearPixel(factor * forward(value) + offset),
    invert: pixel => (flat ? domain[0] : backward((pixel - offset) / factor)),
    words,
    zone,
  }
}
