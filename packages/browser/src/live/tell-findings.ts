import { withCode } from '@dapplo/core/internal'
import type { Finding } from '@dapplo/core/small'

const told = new Set<string>()

/** Where pages are made rather than read. */
const isMaking = (): boolean =>
  location.protocol === 'file:' || /^(localhost|127(\.\d+){3}|\[::1\]|.*\.localhost)$/.test(location.hostname)

const sentenceOf = ({ message, remedy, path }: Finding): string =>
  `${message}${path ? ` (at ${path})` : ''}. ${remedy}`

/** Tells of a chart's findings when they are others than before: whoever listens, and, where a page is being made, the console once each. */
export class Findings {
  private before = ''

  tell(findings: readonly Finding[], listener: ((findings: readonly Finding[]) => void) | undefined): void {
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
    try {
      listener?.(findings)
    } catch (error) {
      // A listener's mistake breaks no chart.
      reportError(error)
    }
  }
}
