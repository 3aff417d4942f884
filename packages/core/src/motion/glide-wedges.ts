import type { Wedges } from '../scene/scene.ts'
import { type BatchAt, mixed } from './blend.ts'
import { longestInOrder, matches } from './places.ts'
import { recoloring } from './recolor.ts'

const NAMES = ['x', 'y', 'from', 'to', 'inner', 'outer'] as const

/** Slices glide by key. A newcomer opens where its neighbours meet, a leaver closes there. */
export function glideWedges(old: Wedges, batch: Wedges): BatchAt[] {
  const match = matches(batch.keys, old.keys)
  // Those that would pass others close where they were and open where they come to be.
  const stays = longestInOrder(match)
  match.forEach((_, i) => {
    if (!stays.has(i)) match[i] = -1
  })
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
  const kept = new Set(match)
  const gone = Array.from(old.keys, (_, i) => i).filter(i => !kept.has(i))
  return gone.length > 0 ? [closing(old, gone, batch, match), step] : [step]
}

/** Slices that go close where their neighbours meet, so that what stays is the whole at every moment. */
function closing(old: Wedges, gone: number[], batch: Wedges, match: Int32Array): BatchAt {
  const edges = new Float32Array(gone.length)
  gone.forEach((m, g) => {
    // The last slice before it that stays, in the order around the circle.
    let before = m - 1
    while (before >= 0 && gone.includes(before)) before--
    edges[g] = before < 0 ? 0 : batch.to[match.indexOf(before)]
  })
  const leaving = only(old, gone)
  return eased => ({
    ...leaving,
    from: mixed(leaving.from, edges, eased),
    to: mixed(leaving.to, edges, eased),
  })
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
