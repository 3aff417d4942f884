import fc from 'fast-check'
import { expect, test } from 'vitest'
// @ts-expect-error Plain modules, so that the command for very many charts runs without a build.
import { casesFor } from './fuzz/cases.mjs'
// @ts-expect-error
import { loadCore, runCase } from './fuzz/run-case.mjs'

const core = await loadCore()

/** Shapes in one picture beyond which its cost is no longer that of what was asked for. */
const MOST_SHAPES = 120_000

test.each([
  ['what people write', 0],
  ['what nobody should write', 1],
  ['what the published schema allows', 4],
])('random charts of %s end in a picture of finite numbers or in one sentence', (_, lot) => {
  let pictures = 0
  fc.assert(
    fc.property(casesFor(lot), one => {
      const problem = runCase(core, one, (shapes: number) => {
        pictures++
        expect(shapes).toBeLessThan(MOST_SHAPES)
      })
      expect(problem).toBeUndefined()
    }),
    { numRuns: 200 },
  )
  // Were all of them refused, nothing would have been tried.
  expect(pictures).toBeGreaterThan(lot === 4 ? 8 : 15)
})
