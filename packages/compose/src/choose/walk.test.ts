import { chart, DapploError, type Description, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
import {
  descriptionOf,
  germanReasons,
  germanSentences,
  SENTENCE_WORDS,
  sentenceOf,
  suggestCharts,
  typesOf,
} from '@dapplo/core/sentence'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { Data } from '../data.ts'
import { COMPOSER_WORDS, germanComposer } from '../words.ts'
import { additionsFor } from './additions.ts'
import { kindsOf } from './edits.ts'
import { mayDraw } from './limits.ts'
import { mendsFor } from './mend.ts'
import type { Allowed, Place } from './model.ts'
import { offerFor } from './offers.ts'

const frame = { width: 640, height: 420, measure: measureInter }
const sailings = table(
  Array.from({ length: 90 }, (_, i) => ({
    departed: new Date(Date.UTC(2025, 0, 1 + i * 3, i % 24)),
    route: ['North Sound', 'Tern Point', 'Gannet Bay'][i % 3],
    vessel: ['Fulmar', 'Dunlin'][i % 2],
    passengers: (i * 37) % 120,
    delay_minutes: i % 9 === 0 ? null : (i * 7) % 23,
    'sum of passengers': (i * 11) % 50,
  })),
  { name: 'sailings' },
)
const columns = typesOf(sailings)
const placesWith =
  (allowed: Allowed) =>
  (description: Description): Place => {
    const { table, facts, look } = new Data(sailings, undefined, allowed.columns)
    return { table, facts, look, description, allowed }
  }
const placeOf = placesWith({})

test('whatever a person chooses, one after the other, can be drawn or is not offered; the words lead back to it', () => {
  const words = new Set<string>([...SENTENCE_WORDS, ...COMPOSER_WORDS])
  let [tried, drawn] = [0, 0]
  const begins = suggestCharts(sailings, { most: 7 }).map(({ description }) => description)
  fc.assert(
    fc.property(fc.nat(), fc.array(fc.nat(), { minLength: 1, maxLength: 14 }), (first, picks) => {
      let description: Description = begins[first % begins.length]
      for (const pick of picks) {
        const place = placeOf(description)
        const sentence = sentenceOf(description, { columns })
        expect(descriptionOf(sentence)).toEqual(description)
        const choices = sentence.pieces.filter(piece => typeof piece !== 'string')
        const at = pick % (choices.length + 2)
        const options = at < choices.length ? offerFor(place, choices[at]).options : additionsFor(place)
        for (const option of options)
          expect(
            option.phrase === true || words.has(option.words) || /^p\d+$/.test(option.words),
            option.words,
          ).toBe(true)
        const option = options[(pick >> 3) % Math.max(1, options.length)]
        if (!option) continue
        tried++
        // What cannot be drawn is left out of a menu, and nothing else may go wrong.
        try {
          const { findings } = new View(chart(sailings, option.next), {}, frame)
          for (const finding of findings)
            for (const mended of mendsFor(placeOf(option.next), finding)) expect(mended).not.toBe(option.next)
          description = option.next
          drawn++
        } catch (error) {
          if (!(error instanceof DapploError)) throw error
        }
      }
    }),
    { numRuns: 120 },
  )
  // Most of what is thought of can be drawn.
  expect(drawn / tried).toBeGreaterThan(0.85)
})

test('what is not allowed is offered nowhere, whatever was chosen before', () => {
  const limited = placesWith({
    columns: ['departed', 'route', 'passengers'],
    kinds: ['bar', 'line', 'heatmap', 'pie'],
  })
  const first: Description = { draw: 'bar', x: 'month of departed', y: 'sum of passengers' }
  fc.assert(
    fc.property(fc.array(fc.nat(), { minLength: 1, maxLength: 10 }), picks => {
      let description = first
      for (const pick of picks) {
        const place = limited(description)
        const choices = sentenceOf(description, { columns }).pieces.filter(piece => typeof piece !== 'string')
        const options = [
          ...choices.flatMap(choice => offerFor(place, choice).options),
          ...additionsFor(place),
        ]
        for (const { next } of options) {
          expect(JSON.stringify(next)).not.toMatch(
            /vessel|delay|scatter|area|reference|trend|"sum of passengers of/,
          )
          expect(kindsOf(next).every(kind => mayDraw(place, kind))).toBe(true)
        }
        const { next } = options[pick % options.length]
        if (!(new Data(sailings).make(next) instanceof DapploError)) description = next
      }
    }),
    { numRuns: 60 },
  )
})

test('the composer has all its words in German', () => {
  expect(Object.keys(germanComposer).sort()).toEqual([...COMPOSER_WORDS].sort())
  for (const words of [germanComposer, germanSentences, germanReasons])
    for (const [said, own] of Object.entries(words))
      expect([...own.matchAll(/\{\w+\}/g)].map(String).sort(), said).toEqual(
        [...said.matchAll(/\{\w+\}/g)].map(String).sort(),
      )
})
