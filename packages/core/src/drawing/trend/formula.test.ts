import fc from 'fast-check'
import { expect, test } from 'vitest'
import { chart, compose, table } from '../../index.ts'
import { measureInter } from '../../theme/text-width.ts'
import { fitCurve } from './curves.ts'
import { formulaText } from './formula.ts'

/** The number that a formula has at a place, read from its words. */
function valueAt(text: string, x: number): number {
  const [body] = text.slice(4).split(', R²')
  const number = (part: string) => Number(part.replace(/−/g, '-').replace(/,/g, '').replace(/E/, 'e'))
  const exponential = /^(\S+) · (\S+)ˣ$/.exec(body)
  if (exponential) return number(exponential[1]) * number(exponential[2]) ** x
  const power = /^(\S+) · x\^(\S+)$/.exec(body)
  if (power) return number(power[1]) * x ** number(power[2])
  const log = /^(\S+) ([+−]) (\S+) ln x$/.exec(body)
  if (log) return number(log[1]) + (log[2] === '−' ? -1 : 1) * number(log[3]) * Math.log(x)
  const [first, ...terms] = body.split(/ (?=[+−] )/)
  return terms.reduce((sum, term) => {
    const [, sign, factor, power] = /^([+−]) (\S+) x(.*)$/.exec(term)!
    const exponent = power === '' ? 1 : '²³⁴⁵'.indexOf(power) + 2
    return sum + (sign === '−' ? -1 : 1) * number(factor) * x ** exponent
  }, number(first))
}

test('a formula as it is written gives the curve again over its range', () => {
  const points = fc.uniqueArray(
    fc.tuple(fc.double({ min: 1, max: 80, noNaN: true }), fc.double({ min: 0.1, max: 5000, noNaN: true })),
    { minLength: 6, maxLength: 20, selector: ([x]) => x },
  )
  const fit = fc.constantFrom('linear', 'log', 'exponential', 'power', { degree: 2 }, { degree: 3 } as const)
  fc.assert(
    fc.property(points, fit, (list, how) => {
      const [xs, ys] = [list.map(([x]) => x), list.map(([, y]) => y)]
      const curve = fitCurve(xs, ys, how as 'linear')
      if (!curve) return
      const range = { min: Math.min(...xs), max: Math.max(...xs) }
      const text = formulaText(curve, undefined, 'en', range)
      const places = Array.from({ length: 25 }, (_, i) => range.min + ((range.max - range.min) * i) / 24)
      const heights = places.map(curve.at)
      const height = Math.max(...heights) - Math.min(...heights)
      for (const [i, x] of places.entries())
        expect(Math.abs(valueAt(text, x) - heights[i])).toBeLessThanOrEqual(
          1.001e-3 * (height || Math.abs(heights[0])),
        )
    }),
  )
})

test('a share that is not the whole is never written as the whole', () => {
  const labelOf = (ys: number[]) =>
    compose(
      chart(table(ys.map((y, i) => ({ x: i + 1, y }))), {
        draw: ['scatter', { as: 'trend', label: true }],
        x: 'x',
        y: 'y',
      }),
      {},
      { width: 700, height: 400, measure: measureInter },
    ).batches.flatMap(batch =>
      batch.kind === 'texts' ? batch.texts.filter(text => text.includes('R²')) : [],
    )
  expect(labelOf([1, 2, 3, 4])).toEqual(['y = 0 + 1 x, R² 1.00'])
  expect(labelOf([1.002, 2.001, 3.003, 4.0021])[0]).toMatch(/R² 0\.9999\d*$/)
})
