import type { Batch, Lines, Rects, Scene } from '../scene/scene.ts'
import { placeBefore } from './before.ts'
import { type BatchAt, faded, type GlideContext, mixed } from './blend.ts'
import { glidePiles, isPiles } from './glide-piles.ts'
import { openWedges } from './open-wedges.ts'
import type { Places } from './places.ts'

/** Leavers are gone after this share of the motion: half of it, since nobody waits for what goes. */
const LEAVING = 0.5

const smooth = (t: number) => Math.max(0, Math.min(1, t))

export function leave(batch: Batch): BatchAt {
  return (_, time) => (time >= LEAVING ? undefined : faded(batch, 1 - smooth(time / LEAVING)))
}

/** A batch that was not there before. Shapes whose key stood somewhere start from there. */
export function enter(batch: Batch, places: Places, context: GlideContext): BatchAt {
  const { to } = context
  if (batch.part === 'guide') return (_, time) => faded(batch, smooth(time))
  const known = places.size > 0
  if (batch.kind === 'lines' && known && batch.keys.length === batch.x.length) {
    const fromX = Float32Array.from(batch.x, (x, i) => places.get(batch.keys[i])?.x ?? x)
    const fromY = Float32Array.from(batch.y, (y, i) => places.get(batch.keys[i])?.y ?? y)
    return (eased, time) =>
      faded({ ...batch, x: mixed(fromX, batch.x, eased), y: mixed(fromY, batch.y, eased) }, smooth(time * 2))
  }
  if (batch.kind === 'lines') return revealLines(batch, to)
  // Bands that stand on each other come as they will stand: from other heights they would fly apart.
  const piled = batch.kind === 'areas' && batch.atBase.some(base => base === base && base !== batch.atBase[0])
  if (batch.kind === 'areas' && known && !piled && batch.keys.length === batch.x.length) {
    // The upper edge starts where its values stood before, the lower one is the ground it stands on.
    const fromX = Float32Array.from(batch.x, (x, i) => places.get(batch.keys[i])?.x ?? x)
    const fromTop = Float32Array.from(batch.top, (y, i) => places.get(batch.keys[i])?.y ?? y)
    return (eased, time) =>
      faded(
        { ...batch, x: mixed(fromX, batch.x, eased), top: mixed(fromTop, batch.top, eased) },
        smooth(time * 2),
      )
  }
  if (batch.kind === 'wedges') return openWedges(batch)
  if (batch.kind === 'discs' && known) {
    const fromX = Float32Array.from(batch.x, (x, i) => places.get(batch.keys[i])?.x ?? x)
    const fromY = Float32Array.from(batch.y, (y, i) => places.get(batch.keys[i])?.y ?? y)
    return (eased, time) =>
      faded({ ...batch, x: mixed(fromX, batch.x, eased), y: mixed(fromY, batch.y, eased) }, smooth(time * 2))
  }
  if (batch.kind === 'rects' && isPiles(batch)) {
    const [grow] = glidePiles(undefined, batch, context)
    return (eased, time, each) => {
      const grown = grow(eased, time, each)
      return grown && known ? faded(grown, smooth(time * 2)) : grown
    }
  }
  if (batch.kind === 'rects') {
    const lying = batch.round.some(side => side === 2 || side === 4)
    return (eased, time, each) => {
      const out = {
        x: batch.x.slice(),
        y: batch.y.slice(),
        width: batch.width.slice(),
        height: batch.height.slice(),
      }
      for (let i = 0; i < out.x.length; i++) {
        const place = known ? places.get(batch.keys[i]) : undefined
        const share = each ? each(i, out.x.length) : eased
        growRect(out, i, batch.round[i], lying, share, place)
        // Its baseline may be on its way itself.
        shiftBase(out, i, batch, lying, share, context)
      }
      const grown = { ...batch, ...out }
      return known ? faded(grown, smooth(time * 2)) : grown
    }
  }
  return (_, time) => faded(batch, smooth(time))
}

type RectArrays = { x: Float32Array; y: Float32Array; width: Float32Array; height: Float32Array }

/** Moves the baseline end of a growing bar to where the baseline is at that moment. */
function shiftBase(
  out: RectArrays,
  i: number,
  batch: Rects,
  lying: boolean,
  share: number,
  context: GlideContext,
): void {
  const axis = lying ? 'x' : 'y'
  const length = lying ? 'width' : 'height'
  const side = batch.round[i]
  const high = lying ? side === 4 : side !== 3
  const base = high ? out[axis][i] + out[length][i] : out[axis][i]
  const end = high ? out[axis][i] : out[axis][i] + out[length][i]
  const now = base + (placeBefore(batch, base, axis, context) - base) * (1 - share)
  out[axis][i] = Math.min(now, end)
  out[length][i] = Math.abs(end - now)
}

/** Shrinks a bar towards its baseline, or towards the length at which its value stood before. */
export function growRect(
  out: RectArrays,
  i: number,
  side: number,
  lying: boolean,
  eased: number,
  place?: { x: number; y: number },
): void {
  if (lying) {
    const base = side === 4 ? out.x[i] + out.width[i] : out.x[i]
    const end = side === 4 ? out.x[i] : out.x[i] + out.width[i]
    const start = place ? place.x : base
    const now = start + (end - start) * eased
    out.x[i] = Math.min(base, now)
    out.width[i] = Math.abs(now - base)
    return
  }
  const base = side === 3 ? out.y[i] : out.y[i] + out.height[i]
  const end = side === 3 ? out.y[i] + out.height[i] : out.y[i]
  const start = place ? place.y : base
  const now = start + (end - start) * eased
  out.y[i] = Math.min(base, now)
  out.height[i] = Math.abs(now - base)
}

/** Lines drawn from the left edge of the plot to the right, all at one pace. */
export function revealLines(batch: Lines, scene: Scene): BatchAt {
  const plot = scene.plots[batch.pane ?? 0]
  return eased => {
    const edge = plot.x + plot.width * eased
    const starts = new Uint32Array(batch.names.length + 1)
    const x: number[] = []
    const y: number[] = []
    batch.names.forEach((_, line) => {
      for (let i = batch.starts[line]; i < batch.starts[line + 1]; i++) {
        if (batch.x[i] <= edge) {
          x.push(batch.x[i])
          y.push(batch.y[i])
          continue
        }
        if (i > batch.starts[line] && batch.x[i - 1] <= edge) {
          const t = (edge - batch.x[i - 1]) / (batch.x[i] - batch.x[i - 1])
          x.push(edge)
          y.push(batch.y[i - 1] + (batch.y[i] - batch.y[i - 1]) * t)
        }
        break
      }
      starts[line + 1] = x.length
    })
    return {
      ...batch,
      starts,
      x: Float32Array.from(x),
      y: Float32Array.from(y),
      atX: batch.atX.subarray(0, x.length),
      atY: batch.atY.subarray(0, x.length),
      keys: [],
      rows: undefined,
    }
  }
}
