import { distance } from 'fastest-levenshtein'

/** Nobody mistypes a longer word; comparing it would take its length squared. */
const LONGEST = 100

/**
 * The candidate most like `word`, else the only one in which it stands as a word or words of its own ("Delay" in
 * "Delay (h)"); undefined when none is near enough to be worth suggesting.
 */
export function nearest(word: string, candidates: Iterable<string>): string | undefined {
  if (word.length > LONGEST) return undefined
  const lower = word.toLowerCase()
  let best: string | undefined
  const within: string[] = []
  // Up to two in five letters may be wrong: enough for a slip or a plural, too little for another word.
  let least = Math.max(2, Math.floor(word.length * 0.4)) + 1
  for (const candidate of candidates) {
    if (lower.length > 2 && standsIn(lower, candidate.toLowerCase())) within.push(candidate)
    if (Math.abs(candidate.length - word.length) >= least) continue
    const other = candidate.toLowerCase()
    // Letters that have changed places are one slip, not two.
    const far = distance(lower, other) / (lettersOf(lower) === lettersOf(other) ? 2 : 1)
    if (far < least) {
      best = candidate
      least = far
    }
  }
  return best ?? (within.length === 1 ? within[0] : undefined)
}

const lettersOf = (word: string): string => [...word].sort().join('')

/** Whether no letter or figure touches the word where it is found. */
function standsIn(word: string, text: string): boolean {
  const at = text.indexOf(word)
  if (at < 0) return false
  return !/[\p{L}\p{N}]$/u.test(text.slice(0, at)) && !/^[\p{L}\p{N}]/u.test(text.slice(at + word.length))
}

/** `Did you mean "x"?`, else a list of what there is; `most`: how many of them at most. */
export function suggest(word: string, candidates: readonly string[], what = 'Known', most = 12): string {
  const near = nearest(word, candidates)
  if (near !== undefined) return `Did you mean "${near}"?`
  if (candidates.length === 0) return ''
  const shown = candidates.slice(0, most).join(', ')
  return `${what}: ${shown}${candidates.length > most ? `, and ${candidates.length - most} more` : ''}.`
}
