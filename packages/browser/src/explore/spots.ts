import type { Hotspot } from '@dapplo/core/internal'
import type { Tongue } from '@dapplo/core/small'

export interface SpotHost {
  /** Whether names at axes answer to a person. */
  selects(): boolean
  preview(key: string | undefined): void
  /** Hides or shows what an entry explains; `alone`: hides all but it. */
  toggle(key: string, alone: boolean): void
  /** Shows the next entries of a legend that has no room for all; `shown`: the keys of those that are shown. */
  leaf(shown: readonly string[]): void
  selectEntry(key: string, adds: boolean): void
  selectPlace(pane: number, scale: string, value: number, adds: boolean): void
}

/** Milliseconds within which two clicks are one that isolates. */
const DOUBLE = 350

/**
 * Buttons that lie unseen over the words of a picture: entries of legends preview their series while pointed at, hide
 * it on a click and isolate it on two; names at axes select what stands there.
 */
export class Spots {
  private readonly host: SpotHost
  private readonly legend: HTMLDivElement
  private readonly labels: HTMLDivElement
  private readonly buttons = new Map<string, HTMLButtonElement>()
  private spots = new Map<string, Hotspot>()
  /** What each button was made to look and sound like. */
  private readonly looks = new WeakMap<HTMLButtonElement, string>()
  /** What is held while a button is pressed by keys. */
  private held: { shift: boolean; adds: boolean } | undefined
  private clicked: { key: string; time: number } | undefined

  constructor(root: HTMLElement, host: SpotHost) {
    this.host = host
    this.legend = group()
    this.labels = group()
    root.append(this.legend, this.labels)
  }

  show(spots: readonly Hotspot[], { say }: Tongue): void {
    this.legend.setAttribute('aria-label', say('Legend'))
    this.labels.setAttribute('aria-label', say('Names at the axes'))
    const wanted = spots.filter(spot => spot.kind !== 'label' || spot.shortened || this.host.selects())
    this.spots = new Map(wanted.map(spot => [`${spot.kind} ${spot.pane} ${spot.key}`, spot]))
    for (const [id, button] of this.buttons) {
      if (this.spots.has(id)) continue
      button.remove()
      this.buttons.delete(id)
    }
    for (const [id, spot] of this.spots) {
      let button = this.buttons.get(id)
      if (!button) {
        button = this.button(id)
        this.buttons.set(id, button)
      }
      const group = spot.kind === 'label' ? this.labels : this.legend
      if (button.parentNode !== group) group.append(button)
      const words =
        spot.kind === 'more'
          ? spot.name
          : spot.kind === 'label'
            ? !this.answers(spot)
              ? spot.name
              : say('Select {name}', { name: spot.name })
            : say(spot.hidden ? '{name}, hidden' : '{name}, shown', { name: spot.name })
      // Pictures follow each other whose words stand where they stood.
      const look = JSON.stringify([spot, words, this.answers(spot)])
      if (this.looks.get(button) === look) continue
      this.looks.set(button, look)
      const { x, y, width, height } = spot.kind === 'label' ? spot.box : forFingers(spot.box)
      Object.assign(button.style, {
        left: `${x}px`,
        top: `${y}px`,
        width: `${width}px`,
        height: `${height}px`,
        transform: spot.turn ? `rotate(${spot.turn.by}deg)` : '',
        transformOrigin: spot.turn ? `${spot.turn.x - x}px ${spot.turn.y - y}px` : '',
        cursor: this.answers(spot) ? 'pointer' : 'default',
      })
      // A name that is cut off is said whole to those who point at it.
      button.title = spot.shortened ? spot.name : ''
      button.tabIndex = this.answers(spot) ? 0 : -1
      if (this.answers(spot)) button.removeAttribute('role')
      else button.setAttribute('role', 'img')
      button.setAttribute('aria-label', words)
      if (spot.kind === 'legend') button.setAttribute('aria-pressed', String(!spot.hidden))
    }
    this.legend.hidden = ![...this.spots.values()].some(spot => spot.kind === 'legend')
    this.labels.hidden = ![...this.spots.values()].some(spot => spot.kind === 'label')
  }

  /** Whether something happens when it is pressed. */
  private answers({ kind }: Hotspot): boolean {
    return kind !== 'label' || this.host.selects()
  }

  remove(): void {
    this.legend.remove()
    this.labels.remove()
  }

  private button(id: string): HTMLButtonElement {
    const button = document.createElement('button')
    button.type = 'button'
    button.className = 'dapplo-spot'
    Object.assign(button.style, {
      position: 'absolute',
      padding: '0',
      margin: '0',
      border: '0',
      background: 'transparent',
      color: 'transparent',
      borderRadius: '3px',
    })
    const preview = (on: boolean) => {
      const spot = this.spots.get(id)
      if (spot?.kind === 'legend') this.host.preview(on && !spot.hidden ? spot.key : undefined)
    }
    button.addEventListener('pointerenter', () => preview(true))
    button.addEventListener('pointerleave', () => preview(false))
    button.addEventListener('focus', () => preview(button.matches(':focus-visible')))
    button.addEventListener('blur', () => preview(false))
    // Not every browser tells with a click by keys which others are held.
    button.addEventListener('keydown', ({ key, shiftKey, ctrlKey, metaKey }) => {
      if (key === 'Enter' || key === ' ') this.held = { shift: shiftKey, adds: ctrlKey || metaKey }
    })
    button.addEventListener('click', event => this.press(id, event))
    return button
  }

  private press(id: string, event: MouseEvent): void {
    const spot = this.spots.get(id)
    if (!spot || !this.answers(spot)) return
    const byKeys = event.detail === 0 ? this.held : undefined
    this.held = undefined
    const adds = event.ctrlKey || event.metaKey || byKeys?.adds === true
    const shift = event.shiftKey || byKeys?.shift === true
    if (spot.kind === 'more') {
      const shown = [...this.spots.values()].filter(({ kind }) => kind === 'legend')
      return this.host.leaf(shown.map(({ key }) => key))
    }
    if (spot.kind === 'label') {
      this.host.selectPlace(spot.pane, spot.scale!, spot.value, adds || shift)
      return
    }
    if (shift && this.host.selects()) {
      this.host.selectEntry(spot.key, adds)
      return
    }
    // The browser counts clicks at the system's own speed; taps it does not count everywhere.
    const { timeStamp: time } = event
    const soon = event.detail === 2 || (this.clicked && time - this.clicked.time < DOUBLE)
    const again = this.clicked?.key === spot.key && soon
    this.clicked = again ? undefined : { key: spot.key, time }
    this.host.preview(undefined)
    // By keys, the shift key isolates, since nobody presses Enter twice in a third of a second.
    this.host.toggle(spot.key, again || (shift && event.detail === 0))
  }
}

/** What a finger can meet: WCAG 2.2, 2.5.8, wants 24 pixels. */
const LEAST = 24

function forFingers({ x, y, width, height }: Hotspot['box']): Hotspot['box'] {
  const [wider, higher] = [Math.max(0, LEAST - width), Math.max(0, LEAST - height)]
  return { x: x - wider / 2, y: y - higher / 2, width: width + wider, height: height + higher }
}

function group(): HTMLDivElement {
  const element = document.createElement('div')
  element.setAttribute('role', 'group')
  return element
}
