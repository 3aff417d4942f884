import { themeOf, tongueOf, withCommon } from '@dapplo/core/internal'
import { button, element } from '../live/elements.ts'
import type { MountOptions } from '../live/model.ts'
import { pageLocale, pageTheme } from '../live/page-frame.ts'

/** What a place shows while its chart is on its way, and where that failed; a page may give its own. */
export interface WaitingSigns {
  /** What is shown after 300 milliseconds without a chart. Default: the frame of one, and a quiet word. */
  loading?: () => Node
  /**
   * What is shown where it failed. `why`: a sentence; `again`: tries once more, where that can help. Default: the sentence,
   * and a button. A chart that is there stays, and this stands under it.
   */
  failed?: (why: string, again: (() => void) | undefined) => Node
}

/** What comes sooner is not announced. */
const PATIENCE = 300

/** Says in a place that its chart is on its way, or why there is none. */
export class Sign {
  private readonly place: HTMLElement
  private readonly options: () => Pick<MountOptions, 'theme' | 'house' | 'locale' | 'height'> & WaitingSigns
  private shown: HTMLElement | undefined
  private timer: ReturnType<typeof setTimeout> | undefined

  constructor(place: HTMLElement, options: Sign['options']) {
    this.place = place
    this.options = options
  }

  /** The chart is on its way. `seen`: whether something stands in its place meanwhile, such as the picture before. */
  loading(seen: boolean): void {
    clearTimeout(this.timer)
    this.place.setAttribute('aria-busy', 'true')
    if (seen) return
    this.timer = setTimeout(() => {
      const { loading, height } = this.options()
      const { say, theme } = this.looks()
      const word = element('p', loading ? '' : say('Loading'), { margin: '0', color: theme.muted })
      word.setAttribute('role', 'status')
      if (loading) word.append(loading())
      const frame = element('div', '', {
        boxSizing: 'border-box',
        width: '100%',
        height: height === undefined ? '100%' : `${height}px`,
        display: 'grid',
        placeItems: 'center',
        font: `${theme.sizes.subtitle}px ${theme.font}`,
        background: theme.background,
        border: `1px solid ${theme.hairline}`,
        borderRadius: '3px',
      })
      // As high as a chart makes itself where nobody says, so that nothing jumps when it comes.
      if (height === undefined) frame.style.minHeight = `${Math.round(this.place.clientWidth * 0.6)}px`
      frame.append(word)
      this.show(frame)
    }, PATIENCE)
  }

  /** It failed. */
  failed(why: string, again: (() => void) | undefined): void {
    this.clear()
    const { failed } = this.options()
    const { say, theme } = this.looks()
    const note = element('div', '', {
      font: `${theme.sizes.subtitle}px ${theme.font}`,
      color: theme.text,
      background: theme.background,
      borderInlineStart: `3px solid ${theme.strong}`,
      padding: '8px 12px',
    })
    if (failed) note.append(failed(why, again))
    else {
      const words = element('p', why, { margin: '0' })
      words.setAttribute('role', 'alert')
      note.append(words)
      if (again) note.append(button(say('Try again'), theme, again))
    }
    this.show(note)
  }

  /** The chart is there, or nobody waits for it any more. */
  clear(): void {
    clearTimeout(this.timer)
    this.place.removeAttribute('aria-busy')
    this.shown?.remove()
    this.shown = undefined
  }

  private show(sign: HTMLElement): void {
    this.shown?.remove()
    this.shown = sign
    sign.dataset.dapplo = 'sign'
    this.place.append(sign)
  }

  private looks() {
    const { theme = 'day', house: own, locale } = this.options()
    const house = withCommon(own)
    return {
      theme: themeOf(pageTheme(theme), house),
      say: tongueOf(pageLocale(this.place, locale, house), house?.words).say,
    }
  }
}
