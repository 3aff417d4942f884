import type { Marks } from './model.ts'
import type { Memory } from './remember.ts'

/**
 * Where what is found of marks is remembered: for as long as others only come after them where that is known, else for as long
 * as they stay the same. `name` tells it from what is remembered there of marks at other values.
 */
export function lasting({ begun }: Marks, memory: Memory): { memory: Memory; name: string } {
  const longer = begun?.memory()
  return longer ? { memory: longer, name: begun!.name } : { memory, name: '' }
}

/** Marks that came after those of which something is remembered, as a share of all: where there are more, it is found anew. */
export const LATE = 0.125
