import type { Rects } from '../scene/scene.ts'
import { carriedBy, placeAfter, placeBefore } from './before.ts'
import type { BatchAt, GlideContext } from './blend.ts'
import { picked } from './picked.ts'
import { matches } from './places.ts'
import { recoloring } from './recolor.ts'

/** Bars that stand on each other. */
export type Piles = Rects & Required<Pick<Rects, 'pileAlong' | 'toward'>>

export const isPiles = (rects: Rects): rects is Piles =>
  rects.toward !== undefined && rects.pileAlong !== undefined

/** One bar of a pile, in pixels: where it begins and ends along the pile, and its room across. */
interface Slab {
  base: number
  end: number
  at: number
  room: number
}

/**
 * Piles on the way to others: at every moment each bar stands on the one before it. Newcomers open on what stays
 * below them, leavers close under what stays above; a pile that is new grows from its baseline as one.
 */
export function glidePiles(old: Piles | undefined, batch: Piles, context: GlideContext): BatchAt[] {
  const count = batch.keys.length
  const match = old ? matches(batch.keys, old.keys) : new Int32Array(count).fill(-1)
  if (old)
    match.forEach((m, i) => {
      // What changes its sign leaves one pile and joins another.
      if (m >= 0 && (old.toward[m] !== batch.toward[i] || old.x[m] !== old.x[m])) match[i] = -1
    })
  const after = Array.from({ length: count }, (_, i) => slabOf(batch, i))
  const before = old ? Array.from({ length: old.keys.length }, (_, i) => slabOf(old, i)) : []
  const piles = pilesOf(batch, after)
  for (const pile of piles) for (const i of outOfOrder(pile, match, before, batch.toward)) match[i] = -1
  const start: Slab[] = [...after]
  const leader = new Int32Array(count)
  for (const pile of piles) {
    const foot = after[pile[0]].base
    const near = placeBefore(batch, foot, batch.pileAlong, context)
    for (const [k, i] of pile.entries()) {
      leader[i] = pile[0]
      const below = pile.slice(0, k).findLast(other => match[other] >= 0)
      const above = pile.slice(k + 1).find(other => match[other] >= 0)
      start[i] =
        match[i] >= 0
          ? before[match[i]]
          : below !== undefined
            ? thin(before[match[below]].end, before[match[below]])
            : thin(near, above === undefined ? shifted(after[i], batch, context) : before[match[above]])
    }
  }
  const kept = new Int32Array(before.length).fill(-1)
  match.forEach((m, i) => {
    if (m >= 0) kept[m] = i
  })
  const goal: Slab[] = [...before]
  /** A bar of the pile with which an old one goes; -1 for none. */
  const goesWith = new Int32Array(before.length).fill(-1)
  if (old)
    for (const pile of pilesOf(old, before)) {
      const far = placeAfter(old, before[pile[0]].base, old.pileAlong, context)
      const top = topOver(old, pile[0], before, batch, after, context)
      for (const [k, m] of pile.entries()) {
        if (kept[m] >= 0) continue
        // Over the newcomers, which open under what leaves.
        const above = pile.slice(k + 1).find(other => kept[other] >= 0)
        goesWith[m] = above === undefined ? top : kept[above]
        goal[m] =
          above !== undefined
            ? thin(after[kept[above]].base, after[kept[above]])
            : top >= 0
              ? thin(after[top].end, after[top])
              : thin(far, before[m])
      }
    }
  const going = Array.from(kept, (i, m) => (i < 0 ? m : -1)).filter(m => m >= 0)
  const recolored = old && recoloring(old, batch, match)
  const carried = carriedBy(batch, batch.pileAlong, context)
  const slabAt = (from: Slab, to: Slab, share: number, eased: number): Slab => {
    const slab = mixedSlab(from, to, share)
    if (!carried || share === eased) return slab
    return { ...slab, base: carried(slab.base, share, eased), end: carried(slab.end, share, eased) }
  }
  const steps: BatchAt[] = []
  if (old && going.length > 0) {
    const gone = { ...picked(old, going), rows: undefined } as Piles
    steps.push((eased, _, each) => {
      const slabs = going.map(m =>
        slabAt(
          before[m],
          goal[m],
          each && goesWith[m] >= 0 ? each(leader[goesWith[m]], count) : eased,
          eased,
        ),
      )
      return drawn(gone, slabs, old.pileAlong)
    })
  }
  steps.push((eased, time, each) => {
    const slabs = after.map((slab, i) => slabAt(start[i], slab, each ? each(leader[i], count) : eased, eased))
    return { ...drawn(batch, slabs, batch.pileAlong), ...recolored?.(time) }
  })
  return steps
}

/** The bars of a pile that would pass others on their way: they close where they were and open where they come to be. */
function outOfOrder(
  pile: readonly number[],
  match: Int32Array,
  before: readonly Slab[],
  toward: Int8Array,
): number[] {
  const kept = pile.filter(i => match[i] >= 0)
  const place = (i: number) => middleOf(before[match[i]]) * toward[i]
  // The longest run that is in order in both pictures stays.
  const best: number[][] = []
  kept.forEach((i, k) => {
    const runs = best.slice(0, k).filter(run => place(run[run.length - 1]) <= place(i))
    best.push([...runs.reduce((a, b) => (b.length > a.length ? b : a), []), i])
  })
  const stay = new Set(best.reduce((a, b) => (b.length > a.length ? b : a), []))
  return kept.filter(i => !stay.has(i))
}

/** A slab across from which its place stood before. */
function shifted(slab: Slab, batch: Piles, context: GlideContext): Slab {
  const across = batch.pileAlong === 'x' ? 'y' : 'x'
  const half = slab.room / 2
  return { ...slab, at: placeBefore(batch, slab.at + half, across, context) - half }
}

const thin = (place: number, { at, room }: Slab): Slab => ({ base: place, end: place, at, room })

/** The outermost bar of the new pile that stands where an old one stood, and grows the same way; -1 where there is none. */
function topOver(
  old: Piles,
  first: number,
  before: readonly Slab[],
  batch: Piles,
  after: readonly Slab[],
  context: GlideContext,
): number {
  const across = old.pileAlong === 'x' ? 'y' : 'x'
  const { at, room } = before[first]
  const middle = placeAfter(old, at + room / 2, across, context)
  const toward = old.toward[first]
  let top = -1
  after.forEach((slab, i) => {
    if (batch.toward[i] !== toward || !(Math.abs(slab.at + slab.room / 2 - middle) < 1)) return
    if (top < 0 || (slab.end - after[top].end) * toward > 0) top = i
  })
  return top
}

const middleOf = ({ base, end }: Slab): number => (base + end) / 2

/** The shapes of each pile, from the baseline outwards. */
function pilesOf(batch: Piles, slabs: readonly Slab[]): number[][] {
  const piles = new Map<string, number[]>()
  slabs.forEach(({ at, base }, i) => {
    if (base !== base) return
    const name = `${at} ${batch.toward[i]}`
    const pile = piles.get(name)
    if (pile) pile.push(i)
    else piles.set(name, [i])
  })
  // By their middles, so that one without thickness stands where two others meet.
  for (const pile of piles.values())
    pile.sort((a, b) => (middleOf(slabs[a]) - middleOf(slabs[b])) * batch.toward[a] || a - b)
  return [...piles.values()]
}

function slabOf({ x, y, width, height, toward, pileAlong }: Piles, i: number): Slab {
  const [low, length, at, room] =
    pileAlong === 'x' ? [x[i], width[i], y[i], height[i]] : [y[i], height[i], x[i], width[i]]
  const [base, end] = toward[i] < 0 ? [low + length, low] : [low, low + length]
  return { base, end, at, room }
}

const mixedSlab = (a: Slab, b: Slab, share: number): Slab => ({
  base: a.base + (b.base - a.base) * share,
  end: a.end + (b.end - a.end) * share,
  at: a.at + (b.at - a.at) * share,
  room: a.room + (b.room - a.room) * share,
})

function drawn(batch: Piles, slabs: readonly Slab[], along: 'x' | 'y'): Rects {
  const low = Float32Array.from(slabs, ({ base, end }) => Math.min(base, end))
  const length = Float32Array.from(slabs, ({ base, end }) => Math.abs(end - base))
  const at = Float32Array.from(slabs, slab => slab.at)
  const room = Float32Array.from(slabs, slab => slab.room)
  return along === 'x'
    ? { ...batch, x: low, width: length, y: at, height: room }
    : { ...batch, x: at, width: room, y: low, height: length }
}
