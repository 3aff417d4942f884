import type { Wedges } from '../scene/scene.ts'
import type { BatchAt } from './blend.ts'

/** A pie opens clockwise from twelve o'clock. */
export function openWedges(batch: Wedges): BatchAt {
  return eased => ({
    ...batch,
    from: batch.from.map(angle => angle * eased),
    to: batch.to.map(angle => angle * eased),
  })
}
