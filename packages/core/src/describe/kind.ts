import type { Kind } from './model.ts'

/** Declares a kind of drawing. */
export function kind<Options = any>(declaration: Kind<Options>): Kind<Options> {
  return declaration
}
