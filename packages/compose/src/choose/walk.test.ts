import { DapploError, type Description, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
import {
  type Drawn,
  descriptionOf,
  germanReasons,
  germanSentences,
  isSpreadData,
  SENTENCE_WORDS,
  sentenceOf,
  suggestCharts,
  typesOf,
} from '@dapplo/core/sentence'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chartFrom } from '../chart-from.ts'
import { Data } from '../data.ts'
import { COMPOSER_WORDS, germanComposer } from '../words.ts'
import { kindsOf } from './edits.ts'
import { mayDraw } from './limits.ts'
import { mendsFor } from './mend.ts'
import type { Allowed, Option, Place } from './model.ts'
import { type Around, additionsAt, offerForWord } from './offering.ts'
import { chartsIn } from './together.ts'

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
const placesWith = (allowed: Allowed) => {
  const { table, facts, look } = new Data(sailings, undefined, allowed.columns)
  return (description: Description): Place => ({ table, facts, look, description, allowed })
}
const data = new Data(sailings)

/** All that is offered about what is drawn: by each word, and at the end of each line. */
function offersIn(around: Around): (readonly Option[])[] {
  const { lines } = sentenceOf(around.drawn, { columns })
  const words = lines.flatMap(({ chart, pieces }) =>
    pieces.flatMap(piece => (typeof piece === 'string' ? [] : [offerForWord(around, chart, piece).options])),
  )
  const charts = isSpreadData(around.drawn) ? [...around.drawn.spread.keys(), undefined] : [undefined]
  return [...words, ...charts.map(chart => additionsAt(around, chart))]
}

test('whatever a person chooses, one after the other, can be drawn or is not offered; the words lead back to it', () => {
  const words = new Set<string>([...SENTENCE_WORDS, ...COMPOSER_WORDS])
  const placeOf = placesWith({})
  let [tried, done, together] = [0, 0, 0]
  const charts = suggestCharts(sailings, { most: 7 }).map(({ description }) => description)
  const begins: Drawn[] = [...charts, { title: 'Two of them', spread: charts.slice(0, 2) }]
  fc.assert(
    fc.property(fc.nat(), fc.array(fc.nat(), { minLength: 1, maxLength: 14 }), (first, picks) => {
      let drawn: Drawn = begins[first % begins.length]
      for (const pick of picks) {
        expect(descriptionOf<Drawn>(sentenceOf(drawn, { columns }))).toEqual(drawn)
        const offers = offersIn({ drawn, placeOf })
        // What adds is chosen more often, so that much is said in the end.
        const options = offers[Math.min(pick % (offers.length + 2), offers.length - 1)]
        for (const option of options)
          expect(
            option.phrase === true ||
              option.words === '{value}' ||
              words.has(option.words) ||
              /^p\d+$/.test(option.words),
            option.words,
          ).toBe(true)
        const option = options[(pick >> 3) % Math.max(1, options.length)]
        if (!option) continue
        tried++
        // What cannot be drawn is left out of a menu, and nothing else may go wrong.
        try {
          const { findings } = new View(chartFrom(sailings, option.next), {}, frame)
          for (const finding of findings)
            for (const own of chartsIn(option.next))
              for (const mended of mendsFor(placeOf(own), finding)) expect(mended).not.toBe(own)
          drawn = option.next
          if (isSpreadData(drawn)) together++
          done++
        } catch (error) {
          if (!(error instanceof DapploError)) throw error
        }
      }
    }),
    { numRuns: runs(120) },
  )
  // Most of what is thought of can be drawn.
  expect(done / tried).toBeGreaterThan(0.85)
  expect(together).toBeGreaterThan(runs(50))
})

test('what is not allowed is offered nowhere, whatever was chosen before', () => {
  const allowed: Allowed = {
    columns: ['departed', 'route', 'passengers'],
    kinds: ['bar', 'line', 'heatmap', 'pie'],
  }
  const limited = placesWith(allowed)
  const first: Description = { draw: 'bar', x: 'month of departed', y: 'sum of passengers' }
  fc.assert(
    fc.property(fc.array(fc.nat(), { minLength: 1, maxLength: 10 }), picks => {
      let drawn: Drawn = first
      for (const pick of picks) {
        const options: readonly Option[] = offersIn({ drawn, placeOf: limited }).flat()
        for (const { next } of options) {
          expect(JSON.stringify(next)).not.toMatch(
            /vessel|delay|scatter|area|reference|trend|"sum of passengers of/,
          )
          expect(
            chartsIn(next)
              .flatMap(kindsOf)
              .every(kind => mayDraw({ allowed }, kind)),
          ).toBe(true)
        }
        const { next } = options[pick % options.length]
        if (data.chartOf(next)) drawn = next
      }
    }),
    { numRuns: runs(60) },
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
