import type { FarQuestion } from '@dapplo/core/far'
import { type Groups, gathers, sameRows } from './sql/gathered.ts'

/** Milliseconds in which questions of several charts come together: those of one page come one after the other. */
const TOGETHER = 3
/** Questions that are put as one at most. */
const MOST = 12

interface Waiting<T> {
  question: Groups
  signal: AbortSignal
  done: (value: T) => void
  failed: (error: unknown) => void
}

/**
 * Lets questions over the same rows wait a moment for each other. `all`: answers several at once; undefined where that cannot be,
 * and each is asked by itself.
 */
export class Gathering<T> {
  private readonly waiting = new Map<string, Waiting<T>[]>()
  private readonly one: (question: FarQuestion, signal: AbortSignal) => Promise<T>
  private readonly all: (questions: Groups[], signal: AbortSignal) => Promise<T[] | undefined>

  constructor(
    one: (question: FarQuestion, signal: AbortSignal) => Promise<T>,
    all: (questions: Groups[], signal: AbortSignal) => Promise<T[] | undefined>,
  ) {
    this.one = one
    this.all = all
  }

  ask(question: FarQuestion, signal: AbortSignal): Promise<T> {
    if (!gathers(question)) return this.one(question, signal)
    return new Promise((done, failed) => {
      const rows = sameRows(question)
      const list = this.waiting.get(rows) ?? []
      list.push({ question, signal, done, failed })
      if (list.length === 1) {
        this.waiting.set(rows, list)
        setTimeout(() => {
          if (this.waiting.get(rows) === list) this.waiting.delete(rows)
          void this.put(list)
        }, TOGETHER)
      } else if (list.length === MOST) this.waiting.delete(rows)
    })
  }

  private async put(list: Waiting<T>[]): Promise<void> {
    const wanted = list.filter(({ signal }) => !signal.aborted)
    const each = () => {
      for (const { question, signal, done, failed } of list) this.one(question, signal).then(done, failed)
    }
    if (wanted.length < 2) return each()
    // It goes on for as long as anybody waits for one of the answers.
    const control = new AbortController()
    let left = wanted.length
    for (const { signal } of wanted)
      signal.addEventListener('abort', () => --left === 0 && control.abort(), { once: true })
    const found = await this.all(
      wanted.map(({ question }) => question),
      control.signal,
    ).catch(() => undefined)
    if (!found) return each()
    wanted.forEach(({ done }, i) => {
      done(found[i])
    })
    for (const { question, signal, done, failed } of list)
      if (!wanted.some(own => own.question === question)) this.one(question, signal).then(done, failed)
  }
}
