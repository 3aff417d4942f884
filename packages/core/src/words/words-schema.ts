import * as v from 'valibot'
import { SENTENCES } from './sentences.ts'
import type { HouseWords } from './tongue.ts'

const form = v.optional(v.string())
const said = v.union([
  v.string(),
  v.strictObject({ zero: form, one: form, two: form, few: form, many: form, other: v.string() }),
])

export const sentences = Object.fromEntries(
  SENTENCES.map(sentence => [sentence, v.optional(sentence.includes('{count}') ? said : v.string())]),
)

/** Words for those of the library. A wrong sentence is found out, since it would never be said. */
export const houseWords = v.strictObject(sentences) as unknown as v.GenericSchema<HouseWords>
