/** Descriptions in words, and charts that are worth seeing for a table. */

export { describe, drawnOf } from './sentence/describe.ts'
export { germanSentences } from './sentence/german.ts'
export type {
  AnyDescription,
  AnySpread,
  ChartSentence,
  Drawn,
  SentenceChoice,
  SentenceLine,
  SentenceOptions,
  SentencePiece,
  Setting,
  SettingPath,
} from './sentence/model.ts'
export { isSpreadData, typesOf } from './sentence/model.ts'
export { phraseText } from './sentence/phrase-words.ts'
export {
  KIND_WORDS,
  LEVEL_WORDS,
  LOOK_WORDS,
  SCALE_FLAG_WORDS,
  SCALE_KIND_WORDS,
  WHOLE_WORDS,
} from './sentence/said-looks.ts'
export { descriptionOf, sentenceOf } from './sentence/sentence.ts'
export { SENTENCE_WORDS } from './sentence/sentence-words.ts'
export { putAt } from './sentence/settings.ts'
export { textOfPieces, type Voice, voiceOf } from './sentence/voice.ts'
export { type ColumnFacts, factsOf } from './suggest/facts.ts'
export { germanReasons } from './suggest/german-reasons.ts'
export { REASON_WORDS } from './suggest/reason-words.ts'
export { type Suggestion, suggestCharts } from './suggest/suggest.ts'
