import {
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  parse,
  rgb,
  wcagContrast,
} from 'culori'
import { describe, expect, test } from 'vitest'
import { day, night } from './theme.ts'

describe.each([day, night])('the $name theme', theme => {
  const colors = theme.colors.map(text => rgb(parse(text)!))
  const difference = differenceCiede2000()
  const least = (list: typeof colors) =>
    Math.min(...list.flatMap((a, i) => list.slice(0, i).map(b => difference(a, b))))

  test('has category colours that all eyes can tell apart', () => {
    expect(colors.length).toBe(8)
    expect(least(colors)).toBeGreaterThanOrEqual(28)
    for (const impaired of [filterDeficiencyProt(1), filterDeficiencyDeuter(1), filterDeficiencyTrit(1)]) {
      expect(least(colors.map(color => rgb(impaired(color))))).toBeGreaterThanOrEqual(15)
    }
  })

  test('has shapes of 3:1 and texts of 4.5:1 on its backgrounds', () => {
    for (const color of theme.colors) expect(wcagContrast(color, theme.background)).toBeGreaterThanOrEqual(3)
    for (const text of [theme.text, theme.muted]) {
      expect(wcagContrast(text, theme.background)).toBeGreaterThanOrEqual(4.5)
      expect(wcagContrast(text, theme.surface)).toBeGreaterThanOrEqual(4.5)
    }
  })
})
