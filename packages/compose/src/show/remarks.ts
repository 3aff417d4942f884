import type { Finding } from '@dapplo/core'
import type { Drawn } from '@dapplo/core/sentence'
import { button, element } from './elements.ts'

/** What remarks need of the composer around them. */
export interface RemarksHost {
  say(words: string, holes?: Readonly<Record<string, string>>): string
  /** What is drawn now. */
  now(): Drawn | undefined
  /** The description without what is regretted, where something is known to mend it. */
  mendOf(finding: Finding): Drawn | undefined
  mend(next: Drawn): void
}

/** What is said under the chart: what the library would regret, or why something cannot be done. */
export class Remarks {
  readonly element = element('ul', 'findings')
  private readonly host: RemarksHost
  private told: { findings: string; of: Drawn | undefined } | undefined

  constructor(host: RemarksHost) {
    this.host = host
  }

  clear(): void {
    this.put([])
  }

  /** Says why something cannot be done, instead of what was said before. */
  alert(words: string, why: string): void {
    this.put([element('li', '', this.host.say(words, { why }), { role: 'alert' })])
  }

  /** Says what the library would regret; a chart and its page may both tell of the same. */
  tell(findings: readonly Finding[]): void {
    const told = { findings: JSON.stringify(findings), of: this.host.now() }
    if (this.told?.findings === told.findings && this.told.of === told.of) return
    this.put(findings.map(finding => this.line(finding)))
    this.told = told
  }

  /** A finding with a button where something is known to mend it, else with what to do. */
  private line(finding: Finding): HTMLElement {
    const line = element('li', '', `${finding.message}. `)
    const next = this.host.mendOf(finding)
    if (!next) {
      line.append(finding.remedy)
      return line
    }
    const words = this.host.say('Mend this')
    const mend = button(words, 'mend', () => this.host.mend(next))
    mend.setAttribute('aria-label', `${words}: ${finding.message}`)
    line.append(mend)
    return line
  }

  private put(lines: readonly HTMLElement[]): void {
    this.told = undefined
    this.element.replaceChildren(...lines)
  }
}
