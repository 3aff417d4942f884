import type { Drawn } from '@dapplo/core/sentence'
import { setAt } from './edits.ts'
import type { Option } from './model.ts'

const HEADINGS = [
  ['title', 'a title', 'A title'],
  ['subtitle', 'a subtitle', 'A subtitle'],
  ['source', 'a source', 'A source'],
] as const

/** Words around a chart, or around several, that are not there yet. */
export const headingsFor = (drawn: Drawn): Option[] =>
  HEADINGS.filter(([key]) => drawn[key] === undefined).map(([key, words, text]) => ({
    words,
    path: [key],
    next: setAt(drawn, [key], text),
  }))
