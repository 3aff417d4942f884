import { withCode } from '@dapplo/core/internal'
import type { Finding } from '@dapplo/core/small'
import { whenIdle } from '../page/idle.ts'

/** What takes longer than these milliseconds is looked for again after so many times as long: a feed must not stutter for it. */
const SHORT = 8
const RESTS = 20

const told = new Set<string>()

/** Where pages are made rather than read. */
const isMaking = (): boolean =>
  location.protocol === 'file:' || /^(localhost|127(\.\d+){3}|\[::1\]|.*\.localhost)$/.test(location.hostname)

const sentenceOf = ({ message, remedy, path }: Finding): string =>
  `${message}${path ? ` (at ${path})` : ''}. ${remedy}`

/**
 * Tells of a chart's findings when they are others than before: whoever listens, and, where a page is being made, the console
 * once each. They are looked for once the page is idle, and not at all where nobody wants to know.
 */
export class Findings {
  private before = ''
  private readonly findings: () => readonly Finding[]
  private readonly listener: () => ((findings: readonly Finding[]) => void) | undefined
  private forget: (() => void) | undefined
  /** When they may be looked for again. */
  private rested = 0

  constructor(
    findings: () => readonly Finding[],
    listener: () => ((findings: readonly Finding[]) => void) | undefined,
  ) {
    this.findings = findings
    this.listener = listener
  }

  /** The chart is not what it was. */
  changed(): void {
    if (this.forget) return
    const rest = this.rested - performance.now()
    if (rest <= 0) {
      this.lookOnceIdle()
      return
    }
    const timer = setTimeout(() => this.lookOnceIdle(), rest)
    this.forget = () => clearTimeout(timer)
  }

  private lookOnceIdle(): void {
    this.forget = whenIdle(() => this.look())
  }

  private look(): void {
    this.forget = undefined
    if (!this.listener() && !isMaking()) return
    const begun = performance.now()
    this.tell()
    const took = performance.now() - begun
    if (took > SHORT) this.rested = begun + took * RESTS
  }

  /** The chart goes: nothing more is told. */
  end(): void {
    this.forget ??= () => {}
    this.forget()
  }

  private tell(): void {
    const findings = this.findings()
    const sentences = findings.map(sentenceOf)
    const now = sentences.join('\n')
    if (now === this.before) return
    this.before = now
    if (isMaking())
      for (const [i, sentence] of sentences.entries()) {
        // What comes by itself in a moment is nothing to mend.
        if (told.has(sentence) || findings[i].code === 'on-its-way') continue
        told.add(sentence)
        console.warn(withCode(sentence, findings[i].code))
      }
    this.listener()?.(findings)
  }
}
