import { type Chart, DapploError, type Finding, type Spread, type Theme } from '@dapplo/core'
import { type Drawn, isSpreadData, type SettingPath } from '@dapplo/core/sentence'
import { type Live, mount } from 'dapplo'
import { colourOffer, scaleOffer } from '../choose/direct.ts'
import { mendsFor } from '../choose/mend.ts'
import type { Offer } from '../choose/model.ts'
import type { Around } from '../choose/offering.ts'
import { chartIn, chartsIn, offerIn, withChart } from '../choose/together.ts'
import { aboutAt } from '../choose/word-at.ts'
import { dragsAlongAxes } from './axis-drags.ts'
import { element } from './elements.ts'
import { findingsIn, type Page } from './picture.ts'
import { Remarks } from './remarks.ts'

/** What the chart under the sentence needs of the composer around it. */
export interface ShownHost {
  readonly page: Page
  say(words: string, holes?: Readonly<Record<string, string>>): string
  theme(): Theme
  drawn(): Drawn | undefined
  around(): Around
  may(path: SettingPath): boolean
  make(drawn: Drawn): Chart | Spread | DapploError
  step(next: Drawn, path?: SettingPath): void
  /** Opens what is offered about words of the sentence. */
  openWord(path: SettingPath): void
  /** Opens what is offered at a place of the picture. */
  openAt(event: MouseEvent, name: string, offer: Offer): void
}

/** The chart under the sentence: its words are clicked and dragged, and what is regretted about it is said below. */
export class Shown {
  live: Live | undefined
  readonly stage = element('div', 'chart')
  readonly remarks: Remarks
  private readonly host: ShownHost

  constructor(host: ShownHost, signal: AbortSignal) {
    this.host = host
    this.remarks = new Remarks({
      say: (words, holes) => host.say(words, holes),
      now: () => host.drawn(),
      mendOf: finding => this.mendOf(finding),
      mend: next => host.step(next, ['draw']),
    })
    // Before the chart, which would hold its tooltip open where a person means the words.
    this.stage.addEventListener('click', event => this.clicked(event), { signal, capture: true })
    dragsAlongAxes(
      this.stage,
      {
        live: () => this.live,
        drawn: () => host.drawn(),
        may: scale => host.may(['scales', scale]),
        tryOut: next => this.show(next),
        step: next => host.step(next),
      },
      signal,
    )
  }

  show(drawn: Drawn): void {
    this.stage.hidden = false
    this.stage.style.height = `${heightOf(drawn)}px`
    const chart = this.host.make(drawn)
    if (chart instanceof DapploError) return this.refuse(chart)
    try {
      if (this.live) this.live.show(chart)
      else {
        const onFindings = (findings: readonly Finding[]) => this.remarks.tell(findings)
        this.live = mount(chart, this.stage, { ...this.host.page.look, onFindings })
      }
      // The chart stands once the running code has ended.
      queueMicrotask(() => this.live && this.remarks.tell(this.live.findings))
    } catch (error) {
      if (!(error instanceof DapploError)) throw error
      this.refuse(error)
    }
  }

  /** Takes the chart away, until another is shown. */
  clear(): void {
    this.stage.hidden = true
    this.remarks.clear()
    this.drop()
  }

  /** The next chart begins anew. */
  drop(): void {
    this.live?.destroy()
    this.live = undefined
  }

  /** Says why something cannot be drawn. What was drawn before stays, and the sentence can be mended. */
  private refuse({ message, hint }: DapploError): void {
    this.remarks.alert('This cannot be drawn: {why}', hint ? `${message}. ${hint}` : message)
  }

  /** What is drawn without what is regretted, whichever of several charts it is about. */
  private mendOf(finding: Finding): Drawn | undefined {
    const { drawn, placeOf } = this.host.around()
    return chartsIn(drawn)
      .flatMap((own, chart) => mendsFor(placeOf(own), finding).map(next => withChart(drawn, chart, next)))
      .find(one => this.mends(one, finding))
  }

  /** Whether a finding is gone from a chart that can be drawn. */
  private mends(drawn: Drawn, { code, path }: Finding): boolean {
    const chart = this.host.make(drawn)
    if (chart instanceof DapploError) return false
    const { clientWidth, clientHeight } = this.stage
    const size = { width: clientWidth || 640, height: clientHeight || 360 }
    const found = findingsIn(chart, size, this.host.page)
    return found !== undefined && !found.some(one => one.code === code && one.path === path)
  }

  /** A click on words in the chart offers what they are about. */
  private clicked(event: MouseEvent): void {
    const { host, live } = this
    const drawn = host.drawn()
    if (!live || !drawn) return
    // What a tooltip covers is not meant.
    if (event.target instanceof Element && event.target.closest('.dapplo-tooltip')) return
    const { left, top } = this.stage.getBoundingClientRect()
    const about = aboutAt(live.scene, drawn, event.clientX - left, event.clientY - top)
    if (!about) return
    event.stopPropagation()
    const { chart } = about
    if (about.is === 'part') {
      host.openWord(chart === undefined ? about.path : ['spread', chart, ...about.path])
      return
    }
    if (!host.may(about.is === 'scale' ? ['scales', about.scale] : ['scales', 'color'])) return
    const place = host.around().placeOf(chartIn(drawn, chart))
    const [name, offer] =
      about.is === 'scale'
        ? [about.scale, scaleOffer(place, about.scale)]
        : [about.name, colourOffer(place, about.name, host.theme())]
    host.openAt(event, name, offerIn(offer, drawn, chart))
  }
}

/** Room for a chart, and for rows of several. */
function heightOf(drawn: Drawn): number {
  const rows = isSpreadData(drawn) ? Math.ceil(drawn.spread.length / (drawn.columns ?? 1)) : 1
  return Math.max(420, 290 * rows)
}
