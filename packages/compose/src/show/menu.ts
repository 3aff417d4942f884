import type { Chart, Spread } from '@dapplo/core'
import type { Drawn } from '@dapplo/core/sentence'
import type { Offer, Option, Writing } from '../choose/model.ts'
import { element } from './elements.ts'

/** What a menu needs of the composer around it. */
export interface MenuHost {
  root: HTMLElement
  say(words: string, holes?: Readonly<Record<string, string>>): string
  textOf(option: Option): string
  chartOf(drawn: Drawn): Chart | Spread | undefined
  draw(canvas: HTMLCanvasElement, chart: Chart | Spread, width: number, height: number): boolean
  chosen(next: Drawn, path: Option['path']): void
  closed(): void
}

/** From so many options on they are found by typing, too. */
const MANY = 9
/** More than these are only found by typing: each is tried before it is offered. */
const SHOWN = 60
const PREVIEW = { width: 220, height: 150 }

let count = 0

/** A list of what a word could say instead, with what is looked at as a small chart. */
export class Menu {
  readonly element: HTMLDivElement
  private readonly host: MenuHost
  private readonly opener: HTMLElement
  private readonly list: HTMLUListElement
  private readonly canvas: HTMLCanvasElement
  private readonly find: HTMLInputElement | undefined
  private readonly all: readonly Option[]
  private shown: readonly Option[] = []
  private readonly tried = new Map<Option, Chart | Spread | undefined>()
  private active = -1
  private readonly id = `dapplo-menu-${++count}`

  constructor(host: MenuHost, opener: HTMLElement, label: string, { options, writings }: Offer) {
    this.host = host
    this.opener = opener
    this.all = options
    this.element = element('div', 'menu', '', { role: 'dialog', 'aria-label': label })
    const parts = element('div', 'parts')
    this.list = element('ul', 'options', '', {
      role: 'listbox',
      'aria-label': label,
      id: this.id,
      tabindex: '0',
    })
    this.canvas = element('canvas', '', '', { 'aria-hidden': 'true' })
    const preview = element('div', 'preview')
    preview.append(this.canvas)
    for (const writing of writings) parts.append(this.writing(writing))
    if (options.length >= MANY) {
      this.find = element('input', 'find', '', {
        type: 'text',
        role: 'combobox',
        placeholder: host.say('Find'),
        'aria-label': host.say('Find'),
        'aria-controls': this.id,
        'aria-expanded': 'true',
        'aria-autocomplete': 'list',
        autocomplete: 'off',
        spellcheck: 'false',
      })
      this.find.addEventListener('input', () => this.fill())
      parts.append(this.find)
      this.list.tabIndex = -1
    }
    if (options.length > 0) parts.append(this.list)
    this.element.append(parts)
    if (options.length > 0) {
      this.element.append(preview)
      this.element.classList.add('seen')
    }
    this.element.addEventListener('keydown', this.pressed)
    this.element.addEventListener('focusout', this.lost)
    opener.setAttribute('aria-expanded', 'true')
    this.fill()
    host.root.append(this.element)
    this.place()
    // Where there is nothing to choose but to leave it out, a person means to write.
    const writes = writings.length > 0 && options.length < 2
    const first = (writes ? this.element.querySelector<HTMLElement>('input') : this.find) ?? this.list
    first.focus()
  }

  close(): void {
    if (!this.element.isConnected) return
    this.element.removeEventListener('focusout', this.lost)
    this.element.remove()
    this.opener.setAttribute('aria-expanded', 'false')
    this.host.closed()
  }

  private place(): void {
    const [around, at] = [this.host.root.getBoundingClientRect(), this.opener.getBoundingClientRect()]
    const narrow = around.width < 480
    this.element.classList.toggle('narrow', narrow)
    const width = Math.min(560, around.width - 16)
    this.element.style.top = `${at.bottom - around.top + 4}px`
    this.element.style.left = `${Math.max(8, Math.min(at.left - around.left, around.width - width - 8))}px`
  }

  private writing({ label, value, kind, next }: Writing): HTMLElement {
    const line = element('form', 'writing')
    const input = element('input', '', '', {
      type: 'text',
      autocomplete: 'off',
      inputmode: kind === 'number' ? 'decimal' : 'text',
    })
    input.value = value
    const named = element('label', '', this.host.say(label))
    named.append(input)
    line.append(named, element('button', 'set', this.host.say('Set'), { type: 'submit' }))
    line.addEventListener('submit', event => {
      event.preventDefault()
      const description = next(kind === 'number' ? input.value.trim().replace(',', '.') : input.value)
      if (!description || !this.host.chartOf(description)) {
        input.setAttribute('aria-invalid', 'true')
        input.focus()
        return
      }
      this.host.chosen(description, [])
    })
    return line
  }

  private works(option: Option): boolean {
    if (!this.tried.has(option)) this.tried.set(option, this.host.chartOf(option.next))
    return this.tried.get(option) !== undefined
  }

  private fill(): void {
    const wanted = (this.find?.value ?? '').toLocaleLowerCase().split(/\s+/).filter(Boolean)
    const fits = (option: Option) => {
      const text = this.host.textOf(option).toLocaleLowerCase()
      return wanted.every(word => text.includes(word))
    }
    const shown: Option[] = []
    for (const option of this.all) {
      if (shown.length >= SHOWN) break
      if (fits(option) && this.works(option)) shown.push(option)
    }
    // Those of one heading stand together.
    const groups = [...new Set(shown.map(({ group = '' }) => group))]
    this.shown = groups.flatMap(group => shown.filter(option => (option.group ?? '') === group))
    this.list.replaceChildren()
    let heading = ''
    this.shown.forEach((option, i) => {
      const { group = '' } = option
      if (group !== heading) {
        heading = group
        this.list.append(element('li', 'heading', this.host.say(group), { role: 'presentation' }))
      }
      const item = element('li', option.now ? 'now' : '', this.host.textOf(option), {
        role: 'option',
        id: `${this.id}-${i}`,
        'aria-selected': 'false',
      })
      if (option.colour) {
        const swatch = element('span', 'swatch')
        swatch.style.background = option.colour
        item.prepend(swatch)
      }
      item.addEventListener('pointermove', () => this.look(i))
      item.addEventListener('click', () => this.choose(i))
      this.list.append(item)
    })
    if (this.shown.length === 0)
      this.list.append(element('li', 'heading', this.host.say('Nothing fits.'), { role: 'presentation' }))
    this.active = -1
    this.look(
      Math.max(
        0,
        this.shown.findIndex(({ now }) => now),
      ),
    )
  }

  /** Looks at an option: it is marked, spoken and drawn. */
  private look(i: number): void {
    if (i === this.active || !this.shown[i]) return
    const items = this.list.querySelectorAll('[role=option]')
    items[this.active]?.setAttribute('aria-selected', 'false')
    this.active = i
    items[i].setAttribute('aria-selected', 'true')
    items[i].scrollIntoView({ block: 'nearest' })
    ;(this.find ?? this.list).setAttribute('aria-activedescendant', items[i].id)
    const chart = this.tried.get(this.shown[i])
    const drawn = chart !== undefined && this.host.draw(this.canvas, chart, PREVIEW.width, PREVIEW.height)
    this.canvas.style.visibility = drawn ? 'visible' : 'hidden'
  }

  private choose(i: number): void {
    const option = this.shown[i]
    if (option) this.host.chosen(option.next, option.path)
  }

  private readonly lost = (event: FocusEvent) => {
    if (!(event.relatedTarget instanceof Node && this.element.contains(event.relatedTarget))) this.close()
  }

  private readonly pressed = (event: KeyboardEvent) => {
    const inList = event.target === this.find || event.target === this.list
    const last = this.shown.length - 1
    const to = inList
      ? {
          ArrowDown: Math.min(last, this.active + 1),
          ArrowUp: Math.max(0, this.active - 1),
          PageDown: Math.min(last, this.active + 8),
          PageUp: Math.max(0, this.active - 8),
        }[event.key]
      : undefined
    if (event.key === 'Escape') {
      this.close()
      this.opener.focus()
    } else if (to !== undefined) this.look(to)
    else if (event.key === 'Enter' && inList) this.choose(this.active)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
}
