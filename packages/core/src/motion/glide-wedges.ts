import type { Wedges } from '../scene/scene.ts'
import { type BatchAt, mixed } from './blend.ts'
import { leave } from './enter-leave.ts'
import { matches } from './places.ts'
import { recoloring } from './recolor.ts'

const NAMES = ['x', 'y', 'from', 'to', 'inner', 'outer'] as const

/** Slices glide by key. A newcomer opens where its neighbour began; a leaver fades. */
export function glideWedges(old: Wedges, batch: Wedges): BatchAt[] {
  const match = matches(batch.keys, old.keys)
  const start = Object.fromEntries(NAMES.map(name => [name, batch[name].slice()])) as Record<
    (typeof NAMES)[number],
    Float32Array
  >
  let edge = 0
  for (let i = 0; i < match.length; i++) {
    const m = match[i]
    if (m < 0) {
      start.from[i] = edge
      start.to[i] = edge
      continue
    }
    for (const name of NAMES) start[name][i] = old[name][m]
    edge = old.to[m]
  }
  const recolored = recoloring(old, batch, match)
  const step: BatchAt = (eased, time) => ({
    ...batch,
    ...recolored?.(time),
    ...Object.fromEntries(NAMES.map(name => [name, mixed(start[name], batch[name], eased)])),
  })
  const stays = new Set(match)
  const gone = Array.from(old.keys, (_, i) => i).filter(i => !stays.has(i))
  return gone.length > 0 ? [leave(only(old, gone)), step] : [step]
}

function only(batch: Wedges, which: number[]): Wedges {
  const picked = Object.fromEntries(
    NAMES.map(name => [name, Float32Array.from(which, i => batch[name][i])]),
  ) as Pick<Wedges, (typeof NAMES)[number]>
  return {
    ...batch,
    ...picked,
    keys: which.map(i => batch.keys[i]),
    rows: undefined,
    color: Uint16Array.from(which, i => batch.color[i]),
    alpha: batch.alpha && Float32Array.from(which, i => batch.alpha![i]),
  }
}
