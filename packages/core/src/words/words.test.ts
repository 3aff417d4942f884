import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { fillWords, readWords } from './holes.ts'
import { SENTENCES } from './sentences.ts'
import { tongueOf } from './tongue.ts'

describe('words with holes', () => {
  const piece = fc.string({ maxLength: 12 })
  const hole = fc
    .string({ minLength: 1, maxLength: 8 })
    .filter(text => !/[{}]/.test(text) && text.trim() !== '')

  test('are taken apart and put together again', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(piece, hole), { maxLength: 5 }), piece, (parts, last) => {
        const doubled = (text: string) => text.replace(/[{}]/g, brace => brace + brace)
        const words = parts.map(([text, name]) => `${doubled(text)}{${name}}`).join('') + doubled(last)
        const read = readWords(words)
        // A brace right before a hole joins it: three braces are a brace and then the hole.
        fc.pre(
          !/[{}]$/.test(parts.map(([text]) => text).join('')) && parts.every(([text]) => !/[{}]$/.test(text)),
        )
        expect(read.holes).toEqual(parts.map(([, name]) => name.trim()))
        expect(read.pieces).toEqual([...parts.map(([text]) => text), last])
        const names = read.holes.map(name => `<${name}>`)
        expect(fillWords(read.pieces, names)).toBe(
          parts.map(([text, name]) => `${text}<${name.trim()}>`).join('') + last,
        )
      }),
    )
  })

  test.each([
    ['{', [], ['{']],
    ['{}', [], ['{}']],
    ['{ }', [], ['{ }']],
    ['a } b', [], ['a } b']],
    ['{{n}}', [], ['{n}']],
    ['{a {b}', ['b'], ['{a ', '']],
    ['{sum of n} people', ['sum of n'], ['', ' people']],
  ])('%s has the holes %j', (words, holes, pieces) => {
    expect(readWords(words)).toEqual({ holes, pieces })
  })

  test('anything at all can be read, and without holes stays what it is', () => {
    fc.assert(
      fc.property(fc.string(), text => {
        const { pieces, holes } = readWords(text)
        expect(pieces.length).toBe(holes.length + 1)
        if (!/[{}]/.test(text)) expect(pieces).toEqual([text])
      }),
    )
  })
})

describe('a tongue', () => {
  test('says each sentence with its holes filled, in the words of the house where it has some', () => {
    for (const sentence of SENTENCES) {
      const { holes } = readWords(sentence)
      const filling = Object.fromEntries(holes.map((hole, i) => [hole, `part ${i}`]))
      const said = tongueOf('en').say(sentence, filling)
      expect(said).not.toMatch(/[{}]/)
      for (const value of Object.values(filling)) expect(said).toContain(value)
      const turned = [...holes]
        .reverse()
        .map(hole => `{${hole}}`)
        .join(' ')
      const own = tongueOf('de', { [sentence]: `Unser ${turned}` }).say(sentence, filling)
      expect(own).toBe(
        `Unser ${[...holes]
          .reverse()
          .map(hole => filling[hole])
          .join(' ')}`,
      )
    }
  })

  test('writes counts in its language, and keeps what it was not given', () => {
    expect(tongueOf('de').say('and {count} more', { count: 12_345 })).toBe('and 12.345 more')
    expect(tongueOf('en').say('and {count} more')).toBe('and {count} more')
    expect(tongueOf('en', { __proto__: { Count: 'no' } } as never).say('Count')).toBe('Count')
  })

  test('counts in all the forms that a language has', () => {
    const words = {
      '{count} rows': {
        one: '{count} rejs',
        few: '{count} rejsy',
        many: '{count} rejsów',
        other: '{count} rejsu',
      },
    }
    const { say } = tongueOf('pl', words)
    expect([1, 3, 5, 22, 112, 1.5].map(count => say('{count} rows', { count }))).toEqual([
      '1 rejs',
      '3 rejsy',
      '5 rejsów',
      '22 rejsy',
      '112 rejsów',
      '1,5 rejsu',
    ])
    expect(
      tongueOf('pl', { 'and {count} more': { other: 'i {count} dalej' } }).say('and {count} more', {
        count: 1,
      }),
    ).toBe('i 1 dalej')
  })

  test('begins names small inside sentences, except where nouns are large or letters stand for words', () => {
    expect(tongueOf('en').lower('Passengers')).toBe('passengers')
    expect(tongueOf('de').lower('Fahrgäste')).toBe('Fahrgäste')
    expect(tongueOf('en').lower('CO2 per trip')).toBe('CO2 per trip')
    expect(tongueOf('tr').lower('Iskele')).toBe('ıskele')
  })
})
