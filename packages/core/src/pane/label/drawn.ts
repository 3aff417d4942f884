import type { BoundDrawing } from '../../bind/model.ts'
import type { Batch } from '../../scene/scene.ts'

/** The shapes of one drawing. */
export interface DrawnShapes {
  bound: BoundDrawing
  batches: readonly Batch[]
}
