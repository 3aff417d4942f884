import type { PositionScale } from '../scale/scale.ts'
import type { Areas } from '../scene/scene.ts'
import { type BatchAt, faded, type GlideContext, mixed } from './blend.ts'
import { leave } from './enter-leave.ts'
import { longestInOrder } from './places.ts'

/** Areas with one name glide, vertex by vertex of the same place; those that are new or gone fade. Stacked ones stay stacked. */
export function glideAreas(old: Areas, batch: Areas, context: GlideContext): BatchAt[] {
  const { from, to } = context
  const [x, y] = [batch.along?.x, batch.along?.y].map(name =>
    name === undefined ? undefined : from.scales.get(name),
  )
  const same = x?.kind.name === to.scales.get(batch.along?.x ?? '')?.kind.name
  if (!x || !y || !same) return [leave(old), (_, time) => faded(batch, time)]
  // One band alone has an edge, which glides as lines do.
  if ((old.piled || batch.piled) && (old.names.length > 1 || batch.names.length > 1))
    return glidePile(old, batch, context) ?? [leave(old), (_, time) => faded(batch, time)]
  const start = { x: batch.x.slice(), top: batch.top.slice(), base: batch.base.slice() }
  const startAlpha = new Float32Array(batch.names.length)
  batch.names.forEach((name, area) => {
    const was = old.names.indexOf(name)
    startAlpha[area] = was < 0 ? 0 : (old.alpha?.[was] ?? 1)
    const known = new Map<number, number>()
    if (was >= 0) for (let i = old.starts[was]; i < old.starts[was + 1]; i++) known.set(old.atX[i], i)
    for (let i = batch.starts[area]; i < batch.starts[area + 1]; i++) {
      const match = known.get(batch.atX[i])
      start.x[i] = match === undefined ? x.map(batch.atX[i]) : old.x[match]
      start.top[i] = match === undefined ? y.map(batch.atTop[i]) : old.top[match]
      start.base[i] = match === undefined ? y.map(batch.atBase[i]) : old.base[match]
    }
  })
  const end = batch.alpha ?? new Float32Array(batch.names.length).fill(1)
  const gone = old.names.some(name => !batch.names.includes(name))
  const step: BatchAt = (eased, time) => ({
    ...batch,
    x: mixed(start.x, batch.x, eased),
    top: mixed(start.top, batch.top, eased),
    base: mixed(start.base, batch.base, eased),
    alpha: mixed(startAlpha, end, time),
  })
  return gone ? [leave(old), step] : [step]
}

/** Vertices beyond which a pile is not worked out place by place. */
const MOST = 200_000

/** A band in both pictures: its number there, -1 where it is not. Where it passes others it is two, one that goes and one that comes. */
interface Pair {
  old: number
  new: number
}

/**
 * A pile of bands on the way to another: at every place each band is as thick as it is on its way from one thickness to
 * the other, and stands on the one before it. Newcomers open where they will stand, leavers close where they stood.
 * Undefined where the places of the two have nothing in common, or are too many.
 */
function glidePile(old: Areas, batch: Areas, { from, to }: GlideContext): BatchAt[] | undefined {
  const scales = [from, to].map(({ scales }) => ({
    x: scales.get(batch.along!.x!)!,
    y: scales.get(batch.along!.y ?? '')!,
  }))
  // Bands that lie over each other are no pile.
  if (!old.piled || !batch.piled) return undefined
  if (scales.some(({ y }) => !y) || String(scales[0].x.words) !== String(scales[1].x.words)) return undefined
  const places = [...new Set([...old.atX, ...batch.atX])].filter(Number.isFinite).sort((a, b) => a - b)
  const pairs = pairsOf(old.names, batch.names)
  if (pairs.length * places.length * 2 > MOST) return undefined
  const smooth = old.smooth || batch.smooth
  if (smooth && places.some(place => !old.atX.includes(place) || !batch.atX.includes(place))) return undefined
  const [before, after] = scales.map(({ x, y }) => ({
    x: Float32Array.from(places, place => x.map(place)),
    ground: groundOf(y),
  }))
  const [goes, comes] = [old, batch].map(areas => endsOf(areas.atX, places))
  const thickness = pairs.map(pair => {
    const [was, will] = [thicknessOf(old, pair.old, places), thicknessOf(batch, pair.new, places)]
    // What comes or goes beyond the ends of the other picture moves with the scale.
    if (pair.old >= 0 && pair.new >= 0) {
      extend(was, goes, will, scales[1].y, scales[0].y)
      extend(will, comes, was, scales[0].y, scales[1].y)
    }
    return { before: was, after: will }
  })
  const count = pairs.length
  const length = places.length * 2
  const alphaOf = (areas: Areas, band: number) => areas.alpha?.[band] ?? 1
  const alphas = [
    Float32Array.from(pairs, pair => (pair.old < 0 ? alphaOf(batch, pair.new) : alphaOf(old, pair.old))),
    Float32Array.from(pairs, pair => (pair.new < 0 ? alphaOf(old, pair.old) : alphaOf(batch, pair.new))),
  ]
  const shared = {
    ...batch,
    keys: [],
    rows: undefined,
    names: pairs.map(pair => (pair.new < 0 ? old.names[pair.old] : batch.names[pair.new])),
    colors: [...batch.colors, ...old.colors],
    color: Uint16Array.from(pairs, pair =>
      pair.new < 0 ? batch.colors.length + old.color[pair.old] : batch.color[pair.new],
    ),
    starts: Uint32Array.from({ length: count + 1 }, (_, i) => i * length),
    atX: Float64Array.from({ length: count * length }, (_, i) => places[(i % length) >> 1]),
    smooth: false,
  }
  return [
    (eased, time) => {
      const across = mixed(before.x, after.x, eased)
      const ground = before.ground + (after.ground - before.ground) * eased
      const up = new Float64Array(length).fill(ground)
      const down = new Float64Array(length).fill(ground)
      const out = {
        x: new Float32Array(count * length),
        top: new Float32Array(count * length),
        base: new Float32Array(count * length),
      }
      thickness.forEach((own, band) => {
        for (let i = 0; i < length; i++) {
          const thick = own.before[i] + (own.after[i] - own.before[i]) * eased
          const pile = thick < 0 ? down : up
          const at = band * length + i
          out.x[at] = across[i >> 1]
          out.base[at] = pile[i]
          pile[i] -= thick
          out.top[at] = pile[i]
        }
      })
      const { y } = scales[1]
      return {
        ...shared,
        ...out,
        atTop: Float64Array.from(out.top, place => y.invert(place)),
        atBase: Float64Array.from(out.base, place => y.invert(place)),
        alpha: mixed(alphas[0], alphas[1], time),
      }
    },
  ]
}

/** The bands of both pictures from the ground outwards: those that keep their order are one, others go and come. */
function pairsOf(old: readonly string[], names: readonly string[]): Pair[] {
  const was = names.map(name => old.indexOf(name))
  const stay = longestInOrder(was)
  const pairs: Pair[] = []
  let gone = 0
  const leave = (until: number) => {
    for (; gone < until; gone++) pairs.push({ old: gone, new: -1 })
  }
  for (const i of names.keys()) {
    if (stay.has(i)) leave(was[i])
    if (stay.has(i)) gone = was[i] + 1
    pairs.push({ old: stay.has(i) ? was[i] : -1, new: i })
  }
  leave(old.length)
  return pairs
}

const groundOf = (y: PositionScale): number => y.map(y.kind.allows(0) ? 0 : Math.min(...y.domain))

/** How many pixels a band is thick to the left and to the right of each place, below its ground negative; 0 where it is not. */
function thicknessOf(areas: Areas, band: number, places: readonly number[]): Float64Array {
  const out = new Float64Array(places.length * 2)
  if (band < 0) return out
  const [first, end] = [areas.starts[band], areas.starts[band + 1]]
  const there = (i: number) => i >= first && i < end && Number.isFinite(areas.base[i] - areas.top[i])
  const thick = (i: number) => (there(i) ? areas.base[i] - areas.top[i] : 0)
  let at = first
  places.forEach((place, p) => {
    while (at < end && areas.atX[at] < place) at++
    let last = at
    while (last + 1 < end && areas.atX[last + 1] === place) last++
    if (at < end && areas.atX[at] === place) {
      out[p * 2] = there(at - 1) ? thick(at) : 0
      out[p * 2 + 1] = there(last + 1) ? thick(last) : 0
    } else if (there(at - 1) && there(at)) {
      const share = (place - areas.atX[at - 1]) / (areas.atX[at] - areas.atX[at - 1])
      out[p * 2] = thick(at - 1) + (thick(at) - thick(at - 1)) * share
      out[p * 2 + 1] = out[p * 2]
    }
  })
  return out
}

/** The first and the last of the places that a picture has. */
function endsOf(own: Float64Array, places: readonly number[]): [number, number] {
  const there = new Set(own)
  const has = places.map(place => there.has(place))
  return [has.indexOf(true), has.lastIndexOf(true)]
}

/** Beyond its ends a band is as thick as in the other picture, as far as that one's scale would make it. */
function extend(
  thick: Float64Array,
  [first, last]: readonly [number, number],
  other: Float64Array,
  from: PositionScale,
  to: PositionScale,
): void {
  if (from.kind.name !== 'linear' || to.kind.name !== 'linear') return
  const factor = to.factor / from.factor
  for (let i = 0; i < thick.length; i++) if (i >> 1 < first || i >> 1 > last) thick[i] = other[i] * factor
  if (last < thick.length / 2 - 1 && other[last * 2 + 1] !== 0) thick[last * 2 + 1] = thick[last * 2]
  if (first > 0 && other[first * 2] !== 0) thick[first * 2] = thick[first * 2 + 1]
}
