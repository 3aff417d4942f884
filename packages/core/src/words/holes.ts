/** Words with holes, taken apart: `pieces` stand before, between and after the phrases in `holes`. */
export interface HoledWords {
  pieces: string[]
  holes: string[]
}

/** Reads `'{sum of passengers} people'`. `{{` and `}}` stand for braces; a brace without its partner is just a brace. */
export function readWords(words: string): HoledWords {
  const pieces: string[] = []
  const holes: string[] = []
  let text = ''
  let close = -1
  /** The next closing brace, looked for once: looking anew at every opening one would take the length squared. */
  const closeAfter = (i: number): number => {
    if (close < i) close = words.indexOf('}', i)
    if (close < 0) close = words.length
    return close
  }
  for (let i = 0; i < words.length; i++) {
    const character = words[i]
    if ((character === '{' || character === '}') && words[i + 1] === character) {
      text += character
      i++
      continue
    }
    const end = character === '{' ? closeAfter(i) : words.length
    const another = character === '{' ? words.indexOf('{', i + 1) : -1
    const whole = end < words.length && (another < 0 || another > end)
    const hole = whole ? words.slice(i + 1, end).trim() : ''
    if (hole === '') {
      text += character
      continue
    }
    pieces.push(text)
    holes.push(hole)
    text = ''
    i = end
  }
  return { pieces: [...pieces, text], holes }
}

/** The words again, their holes filled. */
export const fillWords = (pieces: readonly string[], values: readonly string[]): string =>
  pieces.map((piece, i) => piece + (values[i] ?? '')).join('')
