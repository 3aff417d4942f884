import fc from 'fast-check'
import { expect, test } from 'vitest'
import { parseJson, readJson } from '../open/read.ts'
import { jsonErrorAt } from './json-text.ts'

const json = fc.json({ maxDepth: 3 }).map(text => JSON.stringify(JSON.parse(text), null, 1))

test('text stops being JSON where something stands that cannot go on', () => {
  fc.assert(
    fc.property(
      json,
      fc.nat(),
      fc.constantFrom('}', ']', ',', ':', 'x', "'", '\\', '\n"'),
      (text, seed, odd) => {
        const cut = seed % (text.length + 1)
        const broken = text.slice(0, cut) + odd + text.slice(cut)
        let message = ''
        try {
          JSON.parse(broken)
          return
        } catch (error) {
          message = String(error)
        }
        const at = jsonErrorAt(broken)
        expect(at).toBeGreaterThanOrEqual(0)
        expect(at).toBeLessThanOrEqual(broken.length)
        // The engine goes into texts and numbers; a person wants where they begin. Both are never far apart in lines.
        const told = /position (\d+)/.exec(message)
        if (told) expect(at).toBeLessThanOrEqual(Number(told[1]))
        // What stands before could have been the beginning of JSON: no other error comes first.
        expect(jsonErrorAt(broken.slice(0, at))).toBeGreaterThanOrEqual(broken.slice(0, at).trimEnd().length)
      },
    ),
  )
})

test('an error names its line, also after a byte-order mark', () => {
  expect(() => readJson('\ufeff[\n{"a": 1},\n{"a": }\n]', { name: 'piers.json' })).toThrow(
    expect.objectContaining({ code: 'bad-json', message: expect.stringContaining('line 3') }),
  )
  expect(parseJson('\ufeff{"a": 1}', 'piers.json')).toEqual({ a: 1 })
  expect(() => parseJson('  ', 'piers.json')).toThrow(expect.objectContaining({ hint: 'It is empty.' }))
})
