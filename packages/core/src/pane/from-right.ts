import { mirrored, mirroredBox, mirroredScale, runsLeft } from '../guide/mirror.ts'
import type { Box } from '../scene/scene.ts'
import type { Pane } from './model.ts'

/** The pane as it is: where people read from the right, it begins there. */
export function fromItsSide<P extends Omit<Pane, 'insets'>>(pane: P, box: Box): P {
  if (!runsLeft(pane.bound.tongue.locale)) return pane
  const level = new Set(
    [...pane.bound.scales.values()].filter(({ role }) => role === 'x').map(({ name }) => name),
  )
  return {
    ...pane,
    plot: mirroredBox(pane.plot, box),
    scales: new Map(
      [...pane.scales].map(([name, scale]) => [name, level.has(name) ? mirroredScale(scale, box) : scale]),
    ),
    batches: mirrored(pane.batches, box),
  }
}
