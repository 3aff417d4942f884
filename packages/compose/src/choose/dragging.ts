import type { Description, Scene } from '@dapplo/core'
import { setAt, valueAt } from './edits.ts'

/** A scale in a picture. */
type Scale = NonNullable<ReturnType<Scene['scales']['get']>>

/** A drag over an axis, in pixels along it. */
export interface Drag {
  from: number
  to: number
}

/** An end is drawn no farther than this from where it was, as a share of the axis: a slip must not lose the picture. */
const NEAREST = 0.05
const DAY = 86_400_000

/**
 * The description after a drag along an axis: figures take the nearer end of their scale with them, so that what was under
 * the pointer stays under it; a name goes where it is dropped. Undefined where nothing comes of it.
 */
export function dragged(
  description: Description,
  axis: string,
  scale: Scale,
  drag: Drag,
): Description | undefined {
  return scale.words.length > 0
    ? ordered(description, axis, scale, drag)
    : ended(description, axis, scale, drag)
}

function ordered(
  description: Description,
  axis: string,
  scale: Scale,
  { from, to }: Drag,
): Description | undefined {
  const { words } = scale
  const placeAt = (pixel: number) => Math.max(0, Math.min(words.length - 1, Math.round(scale.invert(pixel))))
  const [before, after] = [placeAt(from), placeAt(to)]
  if (before === after) return undefined
  const next = words.filter((_, i) => i !== before)
  next.splice(after, 0, words[before])
  return setAt(setAt(description, ['order'], undefined), ['scales', axis, 'domain'], next)
}

function ended(
  description: Description,
  axis: string,
  scale: Scale,
  { from, to }: Drag,
): Description | undefined {
  const { kind, domain, range } = scale
  const [start, end] = range
  const share = (pixel: number) => (pixel - start) / (end - start)
  const [low, high] = domain.map(kind.forward)
  const held = low + share(from) * (high - low)
  const upper = share(from) >= 0.5
  const position = upper
    ? low + (held - low) / Math.max(NEAREST, share(to))
    : high - (high - held) / Math.max(NEAREST, 1 - share(to))
  const value = kind.backward(position)
  if (!Number.isFinite(value)) return undefined
  const path = ['scales', axis, 'domain']
  const known = valueAt(description, path)
  const ends: unknown[] = Array.isArray(known) && known.length === 2 ? [...known] : [null, null]
  ends[upper ? 1 : 0] = neat(value, kind.name, Math.abs(domain[1] - domain[0]))
  return setAt(description, path, ends)
}

/** As few figures as the length of the axis tells apart. */
function neat(value: number, kind: string, length: number): number | string {
  if (kind === 'time') {
    const rounded = length > 60 * DAY ? Math.round(value / DAY) * DAY : Math.round(value / 60_000) * 60_000
    const text = new Date(rounded).toISOString()
    return text.endsWith('T00:00:00.000Z') ? text.slice(0, 10) : text
  }
  const size = kind === 'linear' ? length : Math.abs(value)
  const step = 10 ** (Math.floor(Math.log10(size || 1)) - (kind === 'linear' ? 2 : 1))
  // A whole number of steps, written as a decimal fraction would be.
  return Number((Math.round(value / step) * step).toPrecision(12))
}
