import { withCode } from '@dapplo/core/internal'
import type { Finding } from '@dapplo/core/small'
import { whenIdle } from '../page/idle.ts'

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

  constructor(
    findings: () => readonly Finding[],
    listener: () => ((findings: readonly Finding[]) => void) | undefined,
  ) {
    this.findings = findings
    this.listener = listener
  }

  /** The chart is not what it was. */
  changed(): void {
    this.forget ??= whenIdle(() => {
      this.forget = undefined
      if (this.listener() || isMaking()) this.tell()
    })
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
