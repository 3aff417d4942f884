import type { SentenceChoice, SentencePiece, SettingPath } from '@dapplo/core/sentence'
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

/** The sentence: words, those that could be others as buttons, and what adds to it. */
export function sentenceLine(pieces: readonly SentencePiece[], host: LineHost): HTMLElement {
  const line = element('p', 'sentence', '', { role: 'group', 'aria-label': host.say('What is drawn') })
  for (const piece of pieces) {
    if (typeof piece === 'string' || !host.may(piece)) {
      line.append(typeof piece === 'string' ? piece : piece.text)
      continue
    }
    const word = button(piece.text, 'choice', () => host.open(word, piece))
    word.dataset.path = piece.path.join('.')
    line.append(opens(word))
  }
  const and = button(host.say('and …'), 'and', () => host.add(and))
  line.append(' ', opens(and))
  return line
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

/** Which part of the description a word is about. */
export const pathOf = (word: HTMLElement): SettingPath =>
  (word.dataset.path ?? '').split('.').map(key => (/^\d+$/.test(key) ? Number(key) : key))

/** The word about a part of the description: the very part, else one within it, one that it is in, or that of a drawing. */
export function wordFor(place: HTMLElement, path: SettingPath): HTMLElement | undefined {
  const wanted = path.join('.')
  const words = [...place.querySelectorAll<HTMLElement>('.choice')]
  const find = (fits: (own: string) => boolean) => words.find(({ dataset }) => fits(dataset.path ?? ''))
  return (
    find(own => own === wanted) ??
    find(own => own.startsWith(wanted) || wanted.startsWith(`${own}.`)) ??
    find(own => own.endsWith(`.${wanted}`))
  )
}
