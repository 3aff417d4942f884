import type { Wedges } from '../scene/scene.ts'
import type { BatchAt } from './blend.ts'

/** A pie grows from its middle, the whole at every moment. */
export function openWedges(batch: Wedges): BatchAt {
  return eased => ({
    ...batch,
    inner: batch.inner.map(radius => radius * eased),
    outer: batch.outer.map(radius => radius * eased),
  })
}
