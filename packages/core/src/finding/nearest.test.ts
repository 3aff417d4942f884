import fc from 'fast-check'
import { distance } from 'fastest-levenshtein'
import { expect, test } from 'vitest'
import { nearest, suggest } from './nearest.ts'

const word = fc.string({ minLength: 1, maxLength: 12 })

test('what is suggested is the nearest there is, and near enough to have been meant', () => {
  fc.assert(
    fc.property(word, fc.array(word, { maxLength: 10 }), (text, list) => {
      const found = nearest(text, list)
      const far = (other: string) => distance(text.toLowerCase(), other.toLowerCase())
      const least = Math.min(...list.map(far))
      const near = Math.max(2, Math.floor(text.length * 0.4))
      if (found === undefined) expect(least).toBeGreaterThan(near)
      else if (least <= near) expect(far(found)).toBe(least)
      else expect(found.toLowerCase()).toContain(text.toLowerCase())
    }),
  )
})

test('a column is found by its name without its unit, unless two are called so', () => {
  expect(nearest('Delay', ['Order', 'Delay (h)', 'Weight (kg)'])).toBe('Delay (h)')
  expect(nearest('delay', ['Order', 'Mean delay', 'Weight (kg)'])).toBe('Mean delay')
  expect(nearest('Delay', ['Delay in hours', 'Delay in minutes'])).toBeUndefined()
  expect(nearest('age', ['mean tonnage', 'passengers'])).toBeUndefined()
})

test('without one, what there is is listed, but not by the hundred', () => {
  expect(suggest('passengrs', ['passengers', 'route'])).toBe('Did you mean "passengers"?')
  expect(suggest('wind', ['passengers', 'departed'], 'Columns')).toBe('Columns: passengers, departed.')
  const many = Array.from({ length: 30 }, (_, i) => `measure number ${i}`)
  expect(suggest('x', many, 'Columns')).toMatch(/, and 18 more\.$/)
  expect(suggest('x', [])).toBe('')
})
