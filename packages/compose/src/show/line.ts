import type { ChartSentence, SentenceChoice, SentencePiece, SettingPath } from '@dapplo/core/sentence'
import { button, element } from './elements.ts'

type Say = (words: string, holes?: Readonly<Record<string, string>>) => string

/** What a press on a word of the sentence does. */
export interface LineHost {
  say: Say
  may(choice: SentenceChoice): boolean
  open(opener: HTMLElement, choice: SentenceChoice): void
  add(opener: HTMLElement): void
}

const opens = (opener: HTMLElement): HTMLElement => {
  opener.setAttribute('aria-haspopup', 'dialog')
  opener.setAttribute('aria-expanded', 'false')
  return opener
}

/** A sentence: words, those that could be others as buttons, and what adds to it. */
export function sentenceLine(
  pieces: readonly SentencePiece[],
  host: LineHost,
  and = host.say('and …'),
): HTMLElement {
  const line = element('p', 'sentence', '', { role: 'group', 'aria-label': host.say('What is drawn') })
  for (const piece of pieces) {
    if (typeof piece === 'string' || !host.may(piece)) {
      line.append(typeof piece === 'string' ? piece : piece.text)
      continue
    }
    const word = button(piece.text, 'choice', () => host.open(word, piece))
    about.set(word, piece.path)
    line.append(opens(word))
  }
  const more = button(and, 'and', () => host.add(more))
  line.append(' ', opens(more))
  return line
}

/** What a press on a word does, of whichever of several charts; undefined for what is said of all. */
export interface LinesHost {
  say: Say
  may(choice: SentenceChoice): boolean
  open(opener: HTMLElement, chart: number | undefined, choice: SentenceChoice): void
  add(opener: HTMLElement, chart: number | undefined): void
}

/** All that is said: a line for each chart, and of several one for what is said of all. */
export function sentenceLines({ lines, unsaid }: ChartSentence, host: LinesHost): HTMLElement[] {
  const several = lines[0].chart !== undefined
  const all =
    several && lines.at(-1)!.chart !== undefined ? [...lines, { chart: undefined, pieces: [] }] : lines
  return all.map(({ chart, pieces }, i) => {
    const more = i === all.length - 1 && unsaid.length > 0 ? [` ${host.say('And settings of its own.')}`] : []
    const own: LineHost = {
      ...host,
      open: (opener, choice) => host.open(opener, chart, choice),
      add: opener => host.add(opener, chart),
    }
    const forAll = several && chart === undefined
    return sentenceLine([...pieces, ...more], own, host.say(forAll ? 'and … for all' : 'and …'))
  })
}

/** What a tool of the bar does, and whether it can do something now. */
export interface Tool {
  words: string
  act(): void
  can: boolean
  last?: boolean
}

/** The tools under the sentence. One that is pressed again and again stays in focus, although the bar is made anew. */
export function toolBar(tools: readonly Tool[], say: Say, again: (index: number) => void): HTMLElement {
  const bar = element('div', 'tools', '', { role: 'toolbar', 'aria-label': say('Steps') })
  tools.forEach(({ words, act, can, last }, i) => {
    const tool = button(say(words), last ? 'done' : '', () => {
      act()
      again(i)
    })
    tool.disabled = !can
    bar.append(tool)
  })
  return bar
}

const about = new WeakMap<HTMLElement, SettingPath>()

/** Which part of the description a word is about; nothing for what is no word of the sentence. */
export const pathOf = (word: HTMLElement): SettingPath => about.get(word) ?? []

/** The word about a part of the description: the very part, else one within it, one that it is in, or that of a drawing. */
export function wordFor(place: HTMLElement, path: SettingPath): HTMLElement | undefined {
  const words = [...place.querySelectorAll<HTMLElement>('.choice')]
  const find = (fits: (own: SettingPath) => boolean) => words.find(word => fits(pathOf(word)))
  const begins = (long: SettingPath, short: SettingPath) => short.every((key, i) => long[i] === key)
  const ends = (own: SettingPath) => path.every((key, i) => own[own.length - path.length + i] === key)
  return (
    find(own => own.length === path.length && begins(own, path)) ??
    find(own => begins(own, path) || begins(path, own)) ??
    find(ends)
  )
}
