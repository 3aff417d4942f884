import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, compose, paintSvg, table } from '../index.ts'
import { measureInter } from '../theme/text-width.ts'
import { short } from './hundredths.ts'

const HOSTILE = [
  '<script>alert(1)</script>',
  '"><img src=x onerror=alert(1)>',
  "' onload='x",
  '&lt;b&gt;',
  ']]>',
  '\u0000\u0007\ufffe',
  '\u202eright',
  '{{count}}',
  '${1}',
  '<!--',
  'x'.repeat(5000),
]

/** Every tag of the document closes, in order; attributes hold no quote or bracket of their own. */
function wellFormed(svg: string): string[] {
  const open: string[] = []
  const names: string[] = []
  for (const [, close, name, attributes, self] of svg.matchAll(
    /<(\/?)([a-z]+)((?:\s[\w:-]+="[^"<]*")*)\s*(\/?)>/g,
  )) {
    if (close) expect(open.pop()).toBe(name)
    else if (!self) open.push(name)
    names.push(name)
    void attributes
  }
  expect(open).toEqual([])
  const rest = svg.replace(/<(\/?)([a-z]+)((?:\s[\w:-]+="[^"<]*")*)\s*(\/?)>/g, '')
  expect(rest).not.toMatch(/[<>]/)
  return names
}

describe('SVG', () => {
  test('holds every text as text, whatever it says', () => {
    const allowed = new Set(['svg', 'title', 'desc', 'rect', 'g', 'path', 'circle', 'text'])
    fc.assert(
      fc.property(
        fc.oneof(fc.constantFrom(...HOSTILE), fc.string({ unit: 'binary', maxLength: 30 })),
        word => {
          const rows = table([
            { k: word, n: 1 },
            { k: `${word} too`, n: 2 },
          ])
          const svg = paintSvg(
            compose(
              chart(rows, {
                draw: 'line',
                x: 'n',
                y: 'n',
                color: 'k',
                title: word,
                subtitle: word,
                source: word,
              }),
              {},
              { width: 500, height: 400, measure: measureInter },
            ),
          )
          for (const name of wellFormed(svg)) expect(allowed.has(name)).toBe(true)
          expect(svg).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/)
        },
      ),
      { numRuns: runs(150) },
    )
  })

  test('names itself for those who cannot see it', () => {
    const svg = paintSvg(
      compose(
        chart(table([{ n: 1 }, { n: 3 }]), { draw: 'line', x: 'n', y: 'n', title: 'Wind' }),
        {},
        { width: 500, height: 400, measure: measureInter },
      ),
    )
    expect(svg).toContain('role="img" aria-label="Wind"')
    expect(svg).toContain('<desc>Line chart of N. Values from 1 to 3.</desc>')
  })
})

test('lengths are written to a hundredth of a pixel, as short as can be', () => {
  fc.assert(
    fc.property(
      fc.oneof(fc.double({ min: -1e5, max: 1e5, noNaN: true }), fc.double({ noNaN: true })),
      value => {
        const text = short(value)
        if (!Number.isFinite(value * 100)) return
        expect(Math.abs(Number(text) - value)).toBeLessThanOrEqual(0.0051 + Math.abs(value) * 1e-12)
        expect(text).toBe(String(Number(text)))
      },
    ),
  )
  expect([0, -0.001, 1.5, 20, 0.07, -3.25].map(short)).toEqual(['0', '0', '1.5', '20', '0.07', '-3.25'])
})
