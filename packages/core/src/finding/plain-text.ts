/**
 * Characters that do something to a terminal, a log or the order of letters instead of being seen: C0 and C1 controls,
 * DEL, separators of lines, and the marks that turn the direction of text. Tabs and line ends are left alone.
 */
const UNSEEN =
  /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u061c\u200e\u200f\u2028\u2029\u202a-\u202e\u2066-\u2069\ufff9-\ufffb]/g

/** The text with everything unseen written out, as in `\u001b`, so that it can be printed anywhere. */
export const plainText = (text: string): string =>
  text.replace(UNSEEN, unseen => `\\u${unseen.charCodeAt(0).toString(16).padStart(4, '0')}`)

/** The beginning of a text that is too long to be read in a sentence. */
export const cutText = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most).replace(/[\ud800-\udbff]$/, '')}…` : text

/** A value as it is quoted in a message, whatever it is: long ones are cut, and what is no data is called by its type. */
export function quoted(value: unknown): string {
  try {
    const text = JSON.stringify(value)
    if (text !== undefined) return cutText(text, 80)
  } catch {
    // What holds itself, or numbers that JSON does not know, has no such text.
  }
  return typeof value === 'object' ? 'an object' : String(value)
}
