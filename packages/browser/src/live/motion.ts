import { appear, between, carrying, momentBetween, paced, paintDense } from '@dapplo/core/internal'
import type { Part } from './model.ts'

/** Shapes glide to where they belong when data, chart or zoom change. Without it, pictures follow each other at once. */
export const motion: Part = {
  name: 'motion',
  install({ can, stage }) {
    can.moves = { appear, between, carrying, momentBetween, paced }
    stage.surroundings.dense = paintDense
    return {}
  },
}
