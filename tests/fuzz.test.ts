import fc from 'fast-check'
import { expect, test } from 'vitest'
// @ts-expect-error Plain modules, so that the command for very many charts runs without a build.
import { casesFor } from './fuzz/cases.mjs'
// @ts-expect-error
import { loadCore, runCase } from './fuzz/run-case.mjs'
import { runs } from './support/extent.ts'

const core = await loadCore()

/** Shapes in one picture beyond which its cost is no longer that of what was asked for. */
const MOST_SHAPES = 120_000

test.each([
  ['what people write', 0, 200],
  ['what nobody should write', 1, 200],
  // Few of these make sense to a person, so that it takes more of them to try as many pictures.
  ['what the published schema allows', 4, 800],
])('random charts of %s end in a picture of finite numbers or in one sentence', (_, lot, numRuns) => {
  let pictures = 0
  fc.assert(
    fc.property(casesFor(lot), one => {
      const problem = runCase(core, one, (shapes: number) => {
        pictures++
        expect(shapes).toBeLessThan(MOST_SHAPES)
      })
      expect(problem).toBeUndefined()
    }),
    { numRuns: runs(numRuns) },
  )
  // Were all of them refused, nothing would have been tried.
  expect(pictures).toBeGreaterThan(runs(15))
})
