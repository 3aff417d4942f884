import { drawingPieces, drawingPlaces } from './drawing-words.ts'
import type { AnyDescription, ChartSentence, SentenceOptions, SentencePiece, Setting } from './model.ts'
import { putAt, Settings } from './settings.ts'
import { joined, textOfPieces, voiceOf } from './voice.ts'
import { wholePieces } from './whole-words.ts'

/**
 * A description in words: `Draw bars of sum of passengers for each month of departed, one colour per route, stacked.`
 * Each part that could be something else is a choice with its place in the description. What there are no words for is
 * kept in `unsaid`, and the sentence ends by saying that there is more.
 */
export function sentenceOf(description: AnyDescription, options: SentenceOptions = {}): ChartSentence {
  const voice = voiceOf(options)
  const settings = new Settings(description)
  const [first, ...others] = drawingPlaces(description.draw).map(place =>
    drawingPieces(settings, place, voice),
  )
  const drawings = others.reduce(
    (before, drawing) => voice.pieces('{before}; and {drawing}', { before, drawing }),
    first ?? [],
  )
  const sentences: SentencePiece[][] = [
    voice.pieces('Draw {drawings}.', { drawings }),
    ...wholePieces(settings, voice),
  ]
  const unsaid = settings.unsaid()
  if (unsaid.length > 0) sentences.push(voice.pieces('And settings of its own.'))
  const pieces = joined(sentences.flatMap((sentence, i) => (i === 0 ? sentence : [' ', ...sentence])))
  return { pieces, text: textOfPieces(pieces), said: settings.said, unsaid }
}

/** The description that a sentence was made from. */
export const descriptionOf = ({ said, unsaid }: Pick<ChartSentence, 'said' | 'unsaid'>): AnyDescription =>
  [...said, ...unsaid].reduce<object>(
    (before, { path, value }: Setting) =>
      path.length === 0 ? (value as object) : putAt(before, path, value),
    {},
  ) as AnyDescription
