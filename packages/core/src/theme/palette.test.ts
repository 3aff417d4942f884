import {
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  oklch,
  parse,
  rgb,
  wcagContrast,
} from 'culori'
import { describe, expect, test } from 'vitest'
import { day, night } from './theme.ts'

describe.each([day, night])('the $name theme', theme => {
  const all = theme.colors.map(text => rgb(parse(text)!))
  const colors = all.slice(0, 8)
  const difference = differenceCiede2000()
  const least = (list: typeof colors) =>
    Math.min(...list.flatMap((a, i) => list.slice(0, i).map(b => difference(a, b))))

  test('has category colours that all eyes can tell apart', () => {
    expect(least(colors)).toBeGreaterThanOrEqual(28)
    for (const impaired of [filterDeficiencyProt(1), filterDeficiencyDeuter(1), filterDeficiencyTrit(1)]) {
      expect(least(colors.map(color => rgb(impaired(color))))).toBeGreaterThanOrEqual(15)
    }
  })

  test('has two further tiers that differ from all others', () => {
    expect(all).toHaveLength(24)
    const missing = rgb(parse(theme.missing)!)
    expect(least([missing, ...all.slice(0, 16)])).toBeGreaterThanOrEqual(16)
    expect(least([missing, ...all])).toBeGreaterThanOrEqual(14)
  })

  test('opens with no blue, and its hues do not run green, orange, violet, pink', () => {
    const hues = colors.map(color => oklch(color)!.h!)
    const between = (hue: number, from: number, to: number) =>
      (hue - from + 360) % 360 <= (to - from + 360) % 360
    expect(between(hues[0], 210, 290)).toBe(false)
    const run = [
      [140, 200],
      [25, 65],
      [270, 310],
      [335, 15],
    ] as const
    expect(run.every(([from, to], i) => between(hues[i], from, to))).toBe(false)
  })

  test('has shapes of 3:1 and texts of 4.5:1 on its backgrounds', () => {
    for (const color of theme.colors) expect(wcagContrast(color, theme.background)).toBeGreaterThanOrEqual(3)
    for (const text of [theme.text, theme.muted]) {
      expect(wcagContrast(text, theme.background)).toBeGreaterThanOrEqual(4.5)
      expect(wcagContrast(text, theme.surface)).toBeGreaterThanOrEqual(4.5)
    }
  })
})
