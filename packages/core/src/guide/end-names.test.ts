import fc from 'fast-check'
import { expect, test } from 'vitest'
import { spreadOut } from './end-names.ts'

test('places keep their order and distance, stay inside, and move only where they must', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 400, noNaN: true }), { minLength: 1, maxLength: 12 }),
      list => {
        const wished = [...list].sort((a, b) => a - b)
        const places = spreadOut(wished, 20, 0, 400)
        places.forEach((place, i) => {
          expect(place).toBeGreaterThanOrEqual(-1e-6)
          expect(place).toBeLessThanOrEqual(400 + 1e-6)
          if (i > 0) expect(place - places[i - 1]).toBeGreaterThanOrEqual(20 - 1e-6)
        })
        const free = wished.every((wish, i) => i === 0 || wish - wished[i - 1] >= 20)
        for (let i = 0; free && i < places.length; i++) expect(places[i]).toBeCloseTo(wished[i], 6)
      },
    ),
  )
})
