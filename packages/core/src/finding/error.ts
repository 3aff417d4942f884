import { cutText, plainText } from './plain-text.ts'

/** More than this many characters are no sentence: a name or cell that is quoted in it is cut. */
const LONGEST = 600

const sayable = (text: string): string => cutText(plainText(text), LONGEST)

/** What a person can do something about: thrown when a description or data cannot be drawn at all. */
export class DapploError extends Error {
  /** Stable, for programs: `unknown-column`, `bad-json`, … */
  readonly code: string
  /** Where it is, as in `draw[1].y` or `sailings.csv line 12`; empty when there is no better place than the call. */
  readonly path: string
  /** What to do about it, one sentence. */
  readonly hint: string

  constructor(code: string, message: string, path = '', hint = '') {
    super(sayable(message))
    this.name = 'DapploError'
    this.code = code
    this.path = sayable(path)
    this.hint = sayable(hint)
    // A console prints the stack, and whoever reads it there needs the hint most.
    if (this.stack) this.stack = this.stack.replace(this.message, () => this.logLine)
  }

  /** What, where and what to do, in one line. */
  get sentence(): string {
    const where = this.path ? ` (at ${this.path})` : ''
    return `${this.message}${where}${this.hint ? `. ${this.hint}` : ''}`.replace(/([.?!])\.( |$)/g, '$1$2')
  }

  /** The sentence with its code in brackets, for consoles and logs; `dapplo explain` says what a code means. */
  get logLine(): string {
    return withCode(this.sentence, this.code)
  }
}

/** A sentence for a console or a terminal, with the code by which more is found. */
export const withCode = (sentence: string, code: string): string => `${sentence} [${code}]`

/** A likely mistake: a chart can be drawn, but something in it is left out, guessed, or not as asked. */
export interface Finding {
  /** Stable, for programs: `outside-domain`, `unreadable-cells`, … */
  code: string
  /** What is wrong, in one plain sentence. */
  message: string
  /** What to do about it, in one plain sentence. */
  remedy: string
  /** Where in the description or data. */
  path: string
}
