import type { Theme } from '@dapplo/core/small'

/** A short notice over the plate; made once there is something to say. */
export class Notice {
  private readonly root: HTMLElement
  private sign: HTMLDivElement | undefined
  private theme: Theme | undefined

  constructor(root: HTMLElement) {
    this.root = root
  }

  /** Empty: nothing. */
  say(words: string): void {
    if (words === '' && !this.sign) return
    this.sign ??= this.made()
    this.sign.textContent = words
    this.sign.hidden = words === ''
  }

  dress(theme: Theme): void {
    this.theme = theme
    const { surface, text, font } = theme
    if (this.sign) Object.assign(this.sign.style, { background: surface, color: text, fontFamily: font })
  }

  private made(): HTMLDivElement {
    this.sign = document.createElement('div')
    this.sign.className = 'dapplo-notice'
    this.sign.setAttribute('role', 'status')
    Object.assign(this.sign.style, {
      position: 'absolute',
      right: '12px',
      bottom: '8px',
      padding: '3px 8px',
      border: '1px solid currentColor',
      borderRadius: '3px',
      background: 'Canvas',
      color: 'CanvasText',
      font: '600 12px system-ui, sans-serif',
      pointerEvents: 'none',
    })
    if (this.theme) this.dress(this.theme)
    this.root.append(this.sign)
    return this.sign
  }
}
