import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { measureInter } from '../theme/text-width.ts'
import { clean, ellipsis, wrap } from './text.ts'

const font = { size: 13, weight: 400 } as const
const width = (text: string) => measureInter(text, font)
const words = fc.array(
  fc.oneof(
    fc.string({ maxLength: 12, unit: 'grapheme' }),
    fc.constantFrom('👩‍👩‍👧', 'e\u0301', 'مسار', '北'),
  ),
  {
    maxLength: 12,
  },
)
const room = fc.double({ min: 1, max: 400, noNaN: true })

describe('a shortened text', () => {
  test('fits, begins as the text does, and is the longest that does', () => {
    fc.assert(
      fc.property(words, room, (list, wide) => {
        const text = list.join(' ')
        const short = ellipsis(text, wide, font, measureInter)
        if (short === text) return
        expect(short.endsWith('…')).toBe(true)
        const kept = short.slice(0, -1)
        expect(text.startsWith(kept)).toBe(true)
        const characters = [...new Intl.Segmenter().segment(kept)].length
        if (characters > 1) expect(width(short)).toBeLessThanOrEqual(wide)
        expect(width(text)).toBeGreaterThan(wide)
      }),
    )
  })

  test('is cut between characters as people see them', () => {
    expect(ellipsis('👩‍👩‍👧👩‍👩‍👧👩‍👩‍👧', 10, font, measureInter)).toBe('👩‍👩‍👧…')
    expect(ellipsis('cafe\u0301 noir', width('cafe\u0301…') + 0.5, font, measureInter)).toBe('cafe\u0301…')
  })
})

describe('lines', () => {
  test('fit, are few enough, and lose no word unless they say so', () => {
    fc.assert(
      fc.property(words, room, fc.integer({ min: 1, max: 4 }), (list, wide, most) => {
        const text = list.join(' ')
        const lines = wrap(text, wide, font, measureInter, most)
        expect(lines.length).toBeLessThanOrEqual(most)
        for (const line of lines) {
          expect(line).not.toMatch(/^[ \t\n]|[ \t\n]$/)
          const characters = [...new Intl.Segmenter().segment(line)].length
          if (characters > 2) expect(width(line)).toBeLessThanOrEqual(wide)
        }
        const all = clean(text)
          .split(/[ \t\n]+/)
          .filter(Boolean)
          .join(' ')
        if (lines.every(line => !line.endsWith('…')))
          expect(lines.join('').replace(/ /g, '')).toBe(all.replace(/ /g, ''))
      }),
    )
  })

  test('break between words, also where they are written without blanks, and after hyphens', () => {
    const [first, second] = wrap('海豹岩旅客码头', 60, font, measureInter, 2)
    expect(first + second).toBe('海豹岩旅客码头')
    expect(wrap('Nord-Ostsee', width('Ostsee'), font, measureInter, 2)).toEqual(['Nord-', 'Ostsee'])
  })

  test('break where the text does', () => {
    expect(wrap('North Sound\nby day', 400, font, measureInter, 3)).toEqual(['North Sound', 'by day'])
    expect(wrap('one\r\ntwo\rthree', 400, font, measureInter, 2)).toEqual(['one', 'two'])
    expect(wrap('   ', 400, font, measureInter, 2)).toEqual([])
  })
})

test('a clean text holds nothing that no font shows', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), text => {
      const cleaned = clean(text)
      for (const character of cleaned) {
        const code = character.codePointAt(0)!
        expect(code === 10 || (code > 31 && (code < 127 || code > 159))).toBe(true)
      }
      expect(clean(cleaned)).toBe(cleaned)
    }),
  )
})
