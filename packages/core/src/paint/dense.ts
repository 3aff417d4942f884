import type { Dense } from './context.ts'
import { paintDenseLines } from './dense-lines.ts'
import { stampDiscs } from './stamps.ts'

/** What is very many, as one picture; given where frames follow each other, so that pages that draw once need not carry it. */
export const paintDense: Dense = (batch, box, context, density, bitmap) =>
  batch.kind === 'lines'
    ? paintDenseLines(batch, box, context, density, bitmap)
    : stampDiscs(batch, box, context, density, bitmap)
