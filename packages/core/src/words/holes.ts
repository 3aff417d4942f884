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
  for (let i = 0; i < words.length; i++) {
    const character = words[i]
    if ((character === '{' || character === '}') && words[i + 1] === character) {
      text += character
      i++
      continue
    }
    const end = character === '{' ? words.indexOf('}', i) : -1
    const hole = end > 0 ? words.slice(i + 1, end).trim() : ''
    if (hole === '' || hole.includes('{')) {
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
