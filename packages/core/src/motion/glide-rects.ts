import type { Rects } from '../scene/scene.ts'
import { carriedBy, placeBefore } from './before.ts'
import { type BatchAt, type GlideContext, mixed } from './blend.ts'
import { growRect } from './enter-leave.ts'
import { leavers } from './glide-shapes.ts'
import { passesBetween } from './passing.ts'
import { matches } from './places.ts'
import { recoloring } from './recolor.ts'

/** Bars and cells on the way to others of the same keys. What stands on its baseline stays on it, also where its value changes its sign. */
export function glideRects(old: Rects, batch: Rects, context: GlideContext): BatchAt[] {
  const match = matches(batch.keys, old.keys)
  const lying = batch.round.some(side => side === 2 || side === 4)
  const start = {
    x: batch.x.slice(),
    y: batch.y.slice(),
    width: batch.width.slice(),
    height: batch.height.slice(),
  }
  for (let i = 0; i < match.length; i++) {
    const m = match[i]
    if (m < 0 || old.x[m] !== old.x[m]) {
      growRect(start, i, batch.round[i], lying, 0)
      // It grows from where its baseline stands now, which may be on its way itself.
      if (lying) start.x[i] = placeBefore(batch, start.x[i], 'x', context)
      else start.y[i] = placeBefore(batch, start.y[i], 'y', context)
      continue
    }
    start.x[i] = old.x[m]
    start.y[i] = old.y[m]
    start.width[i] = old.width[m]
    start.height[i] = old.height[m]
  }
  const out = {
    x: new Float32Array(match.length),
    y: new Float32Array(match.length),
    width: new Float32Array(match.length),
    height: new Float32Array(match.length),
  }
  const recolored = recoloring(old, batch, match)
  const passing = passesBetween(acrossOf(start, lying), acrossOf(batch, lying)).length > 0
  const edge = passing ? context.to.background : undefined
  const carried = carriedBy(batch, lying ? 'x' : 'y', context)
  const turning = turningBars(old, batch, match)
  const step: BatchAt = (eased, time, each) => {
    mixed(start.x, batch.x, eased, out.x, each)
    mixed(start.y, batch.y, eased, out.y, each)
    mixed(start.width, batch.width, eased, out.width, each)
    mixed(start.height, batch.height, eased, out.height, each)
    const round = turning.length === 0 ? batch.round : batch.round.slice()
    for (const bar of turning) turn(bar, each ? each(bar.i, match.length) : eased, out, round)
    if (each && carried)
      for (let i = 0; i < match.length; i++) {
        const share = each(i, match.length)
        const [place, length] = lying ? [out.x, out.width] : [out.y, out.height]
        const end = carried(place[i] + length[i], share, eased)
        place[i] = carried(place[i], share, eased)
        length[i] = end - place[i]
      }
    return { ...batch, ...recolored?.(time), ...out, round, edge }
  }
  return [...leavers(old, match), step]
}

/** A bar that comes to grow the other way: where its baseline and its end were, and will be. */
interface TurningBar {
  i: number
  lying: boolean
  base: readonly [number, number]
  end: readonly [number, number]
}

/** Places across the bars alone: along them they do not pass. */
const acrossOf = ({ x, y }: Pick<Rects, 'x' | 'y'>, lying: boolean) => {
  const across = lying ? y : x
  return { x: across, y: across }
}

const isLying = (side: number) => side === 2 || side === 4

function turningBars(old: Rects, batch: Rects, match: Int32Array): TurningBar[] {
  const found: TurningBar[] = []
  for (let i = 0; i < match.length; i++) {
    const m = match[i]
    if (m < 0 || old.x[m] !== old.x[m]) continue
    const [before, after] = [old.round[m], batch.round[i]]
    const side = after || before
    if (before === after || side === 0 || (before && isLying(before) !== isLying(side))) continue
    const lying = isLying(side)
    const [from, to] = [edgesOf(old, m, before || side, lying), edgesOf(batch, i, after || side, lying)]
    found.push({ i, lying, base: [from.base, to.base], end: [from.end, to.end] })
  }
  return found
}

function edgesOf({ x, y, width, height }: Rects, i: number, side: number, lying: boolean) {
  const [low, high] = lying ? [x[i], x[i] + width[i]] : [y[i], y[i] + height[i]]
  // Downwards is more in pixels: bars grow to the lower edge of their box above, and on the left.
  return side === 1 || side === 4 ? { base: high, end: low } : { base: low, end: high }
}

function turn(
  { i, lying, base, end }: TurningBar,
  share: number,
  out: Pick<Rects, 'x' | 'y' | 'width' | 'height'>,
  round: Uint8Array,
): void {
  const foot = base[0] + (base[1] - base[0]) * share
  const head = end[0] + (end[1] - end[0]) * share
  out[lying ? 'x' : 'y'][i] = Math.min(foot, head)
  out[lying ? 'width' : 'height'][i] = Math.abs(head - foot)
  round[i] = lying ? (head >= foot ? 2 : 4) : head <= foot ? 1 : 3
}
