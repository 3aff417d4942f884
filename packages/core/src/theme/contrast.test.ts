import { parse, wcagContrast } from 'culori'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { blend, contrast, inkOn, isDark, readColor } from './contrast.ts'
import { themeOnGround } from './house.ts'
import { rampColor } from './ramp.ts'
import { day, night } from './theme.ts'

const hex = fc.integer({ min: 0, max: 0xffffff }).map(n => `#${n.toString(16).padStart(6, '0')}`)

describe('colours', () => {
  test('have the contrast of WCAG 2, as another implementation finds it', () => {
    fc.assert(
      fc.property(hex, hex, (a, b) => {
        expect(contrast(a, b)).toBeCloseTo(wcagContrast(a, b), 3)
        expect(contrast(a, b)).toBe(contrast(b, a))
      }),
    )
  })

  test.each([
    '#fa3',
    '#FA3C',
    '#ffaa33',
    '#ffaa3380',
    'rgb(255, 170, 51)',
    'rgb(255 170 51 / 0.5)',
    ' rgba(255,170,51,.5) ',
  ])('%s is read as CSS means it', text => {
    const meant = parse(text.trim())
    if (meant?.mode !== 'rgb') throw new Error('No colour')
    expect(readColor(text)).toEqual([meant.r, meant.g, meant.b].map(part => Math.round(part * 255)))
  })

  test('that cannot be read stay what they are, and nothing is claimed of them', () => {
    for (const odd of ['transparent', 'red;}', 'url(x)', '', 'rgb(1)', '#12']) {
      expect(readColor(odd)).toBeUndefined()
      expect(contrast(odd, '#000')).toBeUndefined()
      expect(isDark(odd)).toBeUndefined()
      expect(blend(odd, '#000000', 0.5)).toBe(odd)
    }
  })

  test('are blended from one end to the other', () => {
    fc.assert(
      fc.property(hex, hex, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        expect(blend(a, b, 0)).toBe(a)
        expect(blend(a, b, 1)).toBe(b)
        const [low, mid, high] = [a, blend(a, b, share), b].map(color => readColor(color)!)
        for (let i = 0; i < 3; i++) {
          expect(mid[i]).toBeGreaterThanOrEqual(Math.min(low[i], high[i]))
          expect(mid[i]).toBeLessThanOrEqual(Math.max(low[i], high[i]))
        }
      }),
    )
  })
})

test('ink on any colour can be read', () => {
  fc.assert(
    fc.property(hex, fc.constantFrom(day, night), (color, theme) => {
      const ink = inkOn(color, theme)
      expect(ink).toBeDefined()
      expect(contrast(ink!, color)).toBeGreaterThanOrEqual(4.5)
    }),
  )
})

test('words and lines on any ground can be read', () => {
  fc.assert(
    fc.property(hex, fc.constantFrom(day, night), (ground, theme) => {
      const made = themeOnGround(theme, ground, undefined)
      for (const ink of [made.text, made.muted])
        expect(contrast(ink, ground)).toBeGreaterThanOrEqual(4.5 - 0.05)
      expect(contrast(made.missing, ground)).toBeGreaterThanOrEqual(3 - 0.05)
    }),
  )
})

test('a ramp passes through its stops, and its lightness never turns back', () => {
  for (const theme of [day, night]) {
    const stops = theme.sequential
    stops.forEach((stop, i) => {
      expect(rampColor(stops, i / (stops.length - 1))).toBe(stop)
    })
    const away = (place: number) => contrast(rampColor(stops, place), theme.background)!
    for (let i = 1; i <= 100; i++) expect(away(i / 100)).toBeGreaterThanOrEqual(away((i - 1) / 100) - 0.02)
    expect([rampColor(stops, -1), rampColor(stops, 2)]).toEqual([stops[0], stops.at(-1)])
  }
})
