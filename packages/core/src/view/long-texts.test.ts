import { expect, test } from 'vitest'
import { everything } from '../../../../tests/support/extent.ts'
import { wrap } from '../guide/text.ts'
import { readEasing } from '../motion/easing.ts'
import { safeLink, safePicture } from '../scene/scene.ts'
import { readableName } from '../table/cells/column.ts'
import { table } from '../table/open/read.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readIso, readSlashed } from '../table/read/date-text.ts'
import { hasManyRecords, jsonErrorAt } from '../table/read/json-text.ts'
import { isCode, numberStyle, readPlain, readStyled } from '../table/read/number-text.ts'
import { splitCsv } from '../table/read/split-csv.ts'
import { readColor } from '../theme/contrast.ts'
import { readWords } from '../words/holes.ts'

/** Whatever takes the length of a text squared would not come back from these before the test is given up. */
const LENGTH = 200_000

const style = { decimal: '.', percent: false, currency: undefined } as const
const data = table([{ a: 1 }])
const READERS: Record<string, (text: string) => unknown> = {
  plain: readPlain,
  code: isCode,
  amount: text => readStyled(text, style),
  comma: text => readStyled(text, { ...style, decimal: ',' }),
  style: text => numberStyle([text]),
  iso: readIso,
  slashed: text => readSlashed(text, 'day first'),
  csv: splitCsv,
  json: jsonErrorAt,
  records: hasManyRecords,
  words: readWords,
  phrase: text => readPhrase(text, data, 'x'),
  wrap: text => wrap(text, 100, { size: 12, weight: 400 }, one => one.length * 7, 3),
  color: readColor,
  link: safeLink,
  picture: safePicture,
  name: readableName,
  easing: text => readEasing(`linear(${text})`),
}
const RUNS = [
  '1',
  'a',
  'A',
  ' ',
  '\t',
  '\n',
  '\u00a0',
  "'",
  '"',
  '.',
  ',',
  '-',
  '(',
  '{',
  '{a',
  '}',
  '}\n',
  '\\',
  '/',
  '%',
  '$',
  'EUR',
  '1 ',
  '1,',
  '"a"',
  '😀',
]

/** Each reader meets a third of them, other ones than the next, unless everything is tried. */
const runsOf = (name: string) => {
  const place = Object.keys(READERS).indexOf(name)
  return RUNS.filter((_, i) => everything || (i + place) % 3 === 0)
}

test.each(Object.entries(READERS))('reading of %s takes no longer than the text is long', (name, read) => {
  const runs = runsOf(name)
  let outcomes = 0
  for (const run of runs)
    for (const [before, after] of [
      ['', ''],
      ['1', 'x'],
      ['"', ''],
      ['{', '}'],
    ]) {
      try {
        read(before + run.repeat(LENGTH / run.length) + after)
      } catch (error) {
        // A text that is refused is refused in a sentence that somebody can read.
        expect(error).toMatchObject({ code: expect.any(String) })
        expect((error as Error).message.length).toBeLessThan(700)
      }
      outcomes++
    }
  expect(outcomes).toBe(runs.length * 4)
})
