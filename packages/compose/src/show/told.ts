import type { Description, Finding } from '@dapplo/core'
import { button, element } from './elements.ts'

/** What the library would regret, each with a button where something is known to mend it. */
export function toldFindings(
  findings: readonly Finding[],
  mendOf: (finding: Finding) => Description | undefined,
  say: (words: string) => string,
  step: (next: Description) => void,
): HTMLElement[] {
  return findings.map(finding => {
    const line = element('li', '', `${finding.message}. `)
    const next = mendOf(finding)
    if (!next) {
      line.append(finding.remedy)
      return line
    }
    const mend = button(say('Mend this'), 'mend', () => step(next))
    mend.setAttribute('aria-label', `${say('Mend this')}: ${finding.message}`)
    line.append(mend)
    return line
  })
}
