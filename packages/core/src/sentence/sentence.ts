import { drawingPieces, drawingPlaces } from './drawing-words.ts'
import {
  type AnyDescription,
  type AnySpread,
  type ChartSentence,
  type Drawn,
  isSpreadData,
  type SentenceOptions,
  type SentencePiece,
  type Setting,
} from './model.ts'
import { putAt, Settings } from './settings.ts'
import { joined, textOfPieces, type Voice, voiceOf } from './voice.ts'
import { spreadPieces, wholePieces } from './whole-words.ts'

/**
 * A description in words: `Draw bars of sum of passengers for each month of departed, one colour per route, stacked.`
 * Each part that could be something else is a choice with its place in the description. What there are no words for is
 * kept in `unsaid`, and the sentence ends by saying that there is more. Several charts in one picture have sentences of
 * their own, after each other.
 */
export function sentenceOf(drawn: Drawn, options: SentenceOptions = {}): ChartSentence {
  const voice = voiceOf(options)
  const { lines, said, unsaid } = isSpreadData(drawn) ? spreadLines(drawn, voice) : chartLine(drawn, voice)
  const more = unsaid.length > 0 ? [voice.pieces('And settings of its own.')] : []
  const pieces = inOneLine([...lines.map(({ pieces }) => pieces), ...more])
  return { pieces, text: textOfPieces(pieces), lines, said, unsaid }
}

type Lines = Pick<ChartSentence, 'lines' | 'said' | 'unsaid'>

const inOneLine = (sentences: readonly (readonly SentencePiece[])[]): SentencePiece[] =>
  joined(sentences.flatMap((sentence, i) => (i === 0 ? sentence : [' ', ...sentence])))

function chartLine(description: AnyDescription, voice: Voice): Lines {
  const settings = new Settings(description)
  const [first, ...others] = drawingPlaces(description.draw).map(place =>
    drawingPieces(settings, place, voice),
  )
  const drawings = others.reduce(
    (before, drawing) => voice.pieces('{before}; and {drawing}', { before, drawing }),
    first ?? [],
  )
  const pieces = inOneLine([voice.pieces('Draw {drawings}.', { drawings }), ...wholePieces(settings, voice)])
  return { lines: [{ chart: undefined, pieces }], said: settings.said, unsaid: settings.unsaid() }
}

function spreadLines(drawn: AnySpread, voice: Voice): Lines {
  const { spread, ...around } = drawn
  const within =
    (i: number) =>
    <T extends { path: Setting['path'] }>(own: T): T => ({ ...own, path: ['spread', i, ...own.path] })
  const charts = spread.map((description, i) => {
    const { lines, said, unsaid } = chartLine(description, voice)
    const chart = lines[0].pieces.map(piece => (typeof piece === 'string' ? piece : within(i)(piece)))
    const place = i % (around.columns ?? 1) > 0 ? 'Beside it: {chart}' : 'Below it: {chart}'
    return {
      line: { chart: i, pieces: joined(i === 0 ? chart : voice.pieces(place, { chart })) },
      said: said.map(within(i)),
      unsaid: unsaid.map(within(i)),
    }
  })
  const settings = new Settings(around)
  const whole = inOneLine(spreadPieces(settings, voice))
  return {
    lines: [
      ...charts.map(({ line }) => line),
      ...(whole.length > 0 ? [{ chart: undefined, pieces: whole }] : []),
    ],
    said: [...charts.flatMap(({ said }) => said), ...settings.said],
    unsaid: [...charts.flatMap(({ unsaid }) => unsaid), ...settings.unsaid()],
  }
}

/** The description that a sentence was made from: of one chart, or, as `descriptionOf<AnySpread>`, of several. */
export const descriptionOf = <D extends Drawn = AnyDescription>({
  said,
  unsaid,
}: Pick<ChartSentence, 'said' | 'unsaid'>): D =>
  [...said, ...unsaid].reduce<object>(
    (before, { path, value }: Setting) =>
      path.length === 0 ? (value as object) : putAt(before, path, value),
    {},
  ) as D
