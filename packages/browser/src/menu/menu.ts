import type { Composition } from '@dapplo/core/internal'
import type { Sentence } from '@dapplo/core/small'

export interface MenuItem {
  words: Sentence
  act(): void | Promise<void>
}

/** The menu of a chart: a button in the row under it that opens a list of what can be done with it. */
export class Menu {
  /** What stands under the chart. */
  readonly element: HTMLDivElement
  private readonly button: HTMLButtonElement
  private readonly list: HTMLDivElement
  private readonly items: readonly MenuItem[]
  private readonly failed: (action: Sentence) => void

  /** `failed`: called where something cannot be done. */
  constructor(items: readonly MenuItem[], failed: (action: Sentence) => void) {
    this.items = items
    this.failed = failed
    this.button = document.createElement('button')
    this.button.type = 'button'
    this.button.className = 'dapplo-menu-button'
    this.button.setAttribute('aria-haspopup', 'menu')
    this.button.setAttribute('aria-expanded', 'false')
    Object.assign(this.button.style, {
      padding: '4px 10px',
      border: '1px solid',
      borderRadius: '3px',
      background: 'transparent',
      whiteSpace: 'nowrap',
      cursor: 'pointer',
    })
    this.list = document.createElement('div')
    this.list.className = 'dapplo-menu'
    this.list.setAttribute('role', 'menu')
    this.list.hidden = true
    Object.assign(this.list.style, {
      position: 'absolute',
      right: '0',
      bottom: '34px',
      minWidth: '150px',
      maxHeight: 'calc(100% - 40px)',
      overflow: 'auto',
      padding: '4px',
      border: '1px solid',
      borderRadius: '3px',
      zIndex: '3',
    })
    this.element = document.createElement('div')
    this.element.style.marginLeft = 'auto'
    this.element.append(this.button, this.list)
    for (const item of items) this.list.append(this.entry(item))
    this.button.addEventListener('click', () => this.toggle(this.list.hidden === true))
    this.list.addEventListener('keydown', this.pressed)
    this.list.addEventListener('focusout', this.lost)
  }

  /** Takes the theme's colours and the words of the page's language. */
  dress({ theme, tongue }: Composition): void {
    this.button.textContent = tongue.say('Save or print')
    this.list.setAttribute('aria-label', tongue.say('Save or print'))
    this.items.forEach(({ words }, i) => {
      this.list.children[i].textContent = tongue.say(words)
    })
    Object.assign(this.button.style, {
      color: theme.muted,
      borderColor: theme.strong,
      font: `${theme.sizes.text}px ${theme.font}`,
    })
    Object.assign(this.list.style, {
      color: theme.text,
      background: theme.surface,
      borderColor: theme.strong,
      fontFamily: theme.font,
      fontSize: `${theme.sizes.subtitle}px`,
    })
  }

  remove(): void {
    this.element.remove()
  }

  private entry({ words, act }: MenuItem): HTMLButtonElement {
    const entry = document.createElement('button')
    entry.type = 'button'
    entry.tabIndex = -1
    entry.setAttribute('role', 'menuitem')
    Object.assign(entry.style, {
      display: 'block',
      width: '100%',
      padding: '6px 10px',
      border: '0',
      background: 'transparent',
      color: 'inherit',
      font: 'inherit',
      textAlign: 'left',
      cursor: 'pointer',
    })
    entry.addEventListener('click', () => {
      this.toggle(false)
      this.button.focus()
      Promise.resolve()
        .then(act)
        .catch(() => this.failed(words))
    })
    return entry
  }

  private toggle(open: boolean): void {
    this.list.hidden = !open
    this.button.setAttribute('aria-expanded', String(open))
    if (open) (this.list.firstElementChild as HTMLElement | null)?.focus()
  }

  private readonly lost = (event: FocusEvent) => {
    if (!(event.relatedTarget instanceof Node && this.list.contains(event.relatedTarget))) this.toggle(false)
  }

  private readonly pressed = (event: KeyboardEvent) => {
    const entries = [...this.list.children] as HTMLElement[]
    const now = entries.indexOf(document.activeElement as HTMLElement)
    const to = { ArrowDown: now + 1, ArrowUp: now - 1, Home: 0, End: entries.length - 1 }[event.key]
    if (to !== undefined) entries[(to + entries.length) % entries.length]?.focus()
    else if (event.key === 'Escape') {
      this.toggle(false)
      this.button.focus()
    } else return
    event.preventDefault()
    event.stopPropagation()
  }
}
