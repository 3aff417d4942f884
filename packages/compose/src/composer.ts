import { Chart, DapploError, type Description, readCsv, Spread, type Theme } from '@dapplo/core'
import { answeredElsewhere, themeOf, withCommon } from '@dapplo/core/internal'
import { type Drawn, drawnOf, type SettingPath } from '@dapplo/core/sentence'
import type { Live } from 'dapplo'
import { pageLocale, pageTheme } from 'dapplo/internal'
import type { ColumnTypes } from './chart-from.ts'
import { mayChange } from './choose/limits.ts'
import type { Allowed, Offer, Place } from './choose/model.ts'
import { type Around, additionsAt, offerForWord } from './choose/offering.ts'
import { Data } from './data.ts'
import { History } from './history.ts'
import { houseOfCharts, type Language, languageOf } from './language.ts'
import type { Composed, ComposeOptions } from './options.ts'
import { beginnings, worthSeeing } from './show/beginnings.ts'
import { columnList } from './show/columns.ts'
import { takesFiles } from './show/drop.ts'
import { anchorAt, element } from './show/elements.ts'
import { pathOf, sentenceLines, type Tool, toolBar, wordFor } from './show/line.ts'
import { Menu } from './show/menu.ts'
import { type Page, picture } from './show/picture.ts'
import { colour, dress } from './show/sheet.ts'
import { Shown, type ShownHost } from './show/shown.ts'

/** A sentence whose words are choices, over the chart that it describes. */
export class Composer implements Composed {
  readonly element: HTMLElement
  private readonly host = element('div', 'dapplo-composer')
  private readonly root = element('div', 'composer')
  private readonly top = element('div')
  private readonly columns = element('details')
  private readonly said = element('div', 'said', '', { role: 'status' })
  private readonly options: ComposeOptions
  /** How charts look here. */
  private readonly page: Page
  private readonly dark = matchMedia('(prefers-color-scheme: dark)')
  private readonly ending = new AbortController()
  private data: Data
  private language: Language
  private history: History<Drawn | undefined>
  private menu: Menu | undefined
  private listed: unknown
  private readonly shown: Shown

  constructor(place: HTMLElement, options: ComposeOptions) {
    this.element = place
    this.options = options
    const { theme, house, look, allow } = options
    const locale = pageLocale(place, options.locale, withCommon(house))
    this.page = { element: place, look: { theme, house: houseOfCharts(house), locale } }
    this.data = new Data(options.tables, look, allow?.columns, options.types)
    this.language = languageOf(options, locale, this.data.table)
    this.history = new History<Drawn | undefined>(
      options.chart instanceof Chart || options.chart instanceof Spread
        ? drawnOf(options.chart)
        : options.chart,
    )
    const shadow = this.host.attachShadow({ mode: 'open' })
    dress(shadow)
    const { signal } = this.ending
    this.shown = new Shown(this.shownHost(), signal)
    const { stage, remarks } = this.shown
    this.root.append(this.top, stage, remarks.element, this.columns, this.said)
    shadow.append(this.root)
    place.replaceChildren(this.host)
    colour(this.host, this.theme)
    this.dark.addEventListener('change', () => colour(this.host, this.theme), { signal })
    this.root.addEventListener('keydown', event => this.pressed(event), { signal })
    if (allow?.files) takesFiles(this.root, (text, name) => this.use(text, name), signal)
    this.render()
  }

  /** What the chart under the sentence needs of it. */
  private shownHost(): ShownHost {
    return {
      page: this.page,
      say: (words, holes) => this.language.say(words, holes),
      theme: () => this.theme,
      drawn: () => this.description,
      around: () => this.around,
      may: path => this.may(path),
      make: drawn => this.data.make(drawn),
      step: (next, path) => this.step(next, path),
      openWord: path => wordFor(this.top, path)?.click(),
      openAt: (event, name, offer) =>
        this.openMenu(anchorAt(this.root, event), this.language.say('About “{name}”', { name }), offer),
    }
  }

  get live(): Live | undefined {
    return this.shown.live
  }

  get description(): Drawn | undefined {
    return this.history.now
  }

  get sentence(): string {
    return this.description ? this.language.sentence(this.description).text : ''
  }

  show(description: Drawn): void {
    const made = this.data.make(description)
    if (made instanceof DapploError) throw made
    this.step(description)
  }

  undo(): void {
    this.move(-1)
  }

  redo(): void {
    this.move(1)
  }

  restart(): void {
    if (this.history.now !== this.history.first) this.step(this.history.first)
  }

  destroy(): void {
    this.ending.abort()
    this.menu?.close()
    this.shown.drop()
    this.host.remove()
  }

  /** What a person may change. */
  get allowed(): Allowed {
    return this.options.allow ?? {}
  }

  private readonly placeOf = (description: Description): Place => {
    const { table, facts, look } = this.data
    return { table, facts, look, description, allowed: this.allowed }
  }

  private get around(): Around {
    return { drawn: this.history.now as Drawn, placeOf: this.placeOf }
  }

  private may(path: SettingPath): boolean {
    return mayChange(this, path)
  }

  private get theme(): Theme {
    const { theme = 'day', house } = this.page.look
    return themeOf(pageTheme(theme), withCommon(house))
  }

  private readonly draw = (
    canvas: HTMLCanvasElement,
    chart: Chart | Spread,
    width: number,
    height: number,
  ): boolean => picture(canvas, chart, { width, height }, this.page)

  private step(description: Drawn | undefined, path?: SettingPath): void {
    this.menu?.close()
    this.history.add(description)
    this.render(path)
    this.tellStep()
  }

  private move(by: -1 | 1): void {
    if (by < 0 ? !this.history.canUndo : !this.history.canRedo) return
    this.menu?.close()
    this.history.move(by)
    this.render()
    this.tellStep()
  }

  private tellStep(): void {
    if (this.description) this.options.onChange?.(this.description)
    this.tellEvent('change')
  }

  private tellEvent(name: 'change' | 'done'): void {
    this.host.dispatchEvent(
      new CustomEvent(name, { bubbles: true, composed: true, detail: this.description }),
    )
  }

  /** Writes the sentence anew and shows its chart; `path`: what is looked at then. */
  private render(path?: SettingPath): void {
    const { description } = this
    const { say, sentence } = this.language
    if (description) {
      const said = sentence(description)
      const { text } = said
      this.top.replaceChildren(
        ...sentenceLines(said, {
          say,
          may: choice => this.may(choice.path),
          open: (opener, chart, choice) => {
            const label = say('Instead of “{words}”', { words: choice.text })
            this.openMenu(opener, label, offerForWord(this.around, chart, choice))
          },
          add: (opener, chart) => {
            const options = additionsAt(this.around, chart)
            this.openMenu(opener, say('Add to the sentence'), { options, writings: [] })
          },
        }),
        toolBar(this.tools(), say, index => this.focusTool(index)),
      )
      this.shown.show(description)
      if (path) (wordFor(this.top, path) ?? this.top.querySelector<HTMLElement>('.and'))?.focus()
      this.said.textContent = text
    } else {
      this.shown.clear()
      const host = {
        say,
        sentence: (one: Drawn) => sentence(one).text,
        chartOf: this.data.chartOf,
        draw: this.draw,
        begin: (one: Drawn) => this.step(one, ['draw']),
      }
      this.top.replaceChildren(beginnings(worthSeeing(this.data, this.allowed), host))
    }
    this.showColumns()
  }

  /** The columns of a table, anew once it has changed. */
  private showColumns(): void {
    const { table, look } = this.data
    if (this.listed === look) return
    this.listed = look
    const retype = this.options.onTypes && !answeredElsewhere(table) ? this.retype : undefined
    columnList(this.columns, { table, look }, this.language.voice, retype)
    if (this.options.allow?.files)
      this.columns.append(element('p', '', this.language.say('Drop a CSV file here to use it.')))
  }

  private tools(): Tool[] {
    const { history } = this
    const tools: Tool[] = [
      { words: 'Undo', act: () => this.undo(), can: history.canUndo },
      { words: 'Redo', act: () => this.redo(), can: history.canRedo },
      { words: 'Back to how it was', act: () => this.restart(), can: history.now !== history.first },
    ]
    const done = () => {
      if (this.description) this.options.onDone?.(this.description)
      this.tellEvent('done')
    }
    return [...tools, { words: 'Done', act: done, can: true, last: true }]
  }

  private focusTool(index: number): void {
    const tool = this.top.querySelectorAll<HTMLButtonElement>('.tools button')[index]
    if (tool && !tool.disabled) tool.focus()
    else this.top.querySelector<HTMLElement>('.tools button:not(:disabled), .beginning')?.focus()
  }

  private openMenu(opener: HTMLElement, label: string, offer: Offer): void {
    const again = this.menu !== undefined && opener.getAttribute('aria-expanded') === 'true'
    this.menu?.close()
    if (again) return
    const host = {
      root: this.root,
      say: this.language.say,
      textOf: this.language.textOf,
      chartOf: this.data.chartOf,
      draw: this.draw,
      chosen: (next: Drawn, path: SettingPath) => this.step(next, path.length > 0 ? path : pathOf(opener)),
      closed: () => {
        this.menu = undefined
      },
    }
    this.menu = new Menu(host, opener, label, offer)
  }

  private pressed(event: KeyboardEvent): void {
    const typing = (event.composedPath()[0] as HTMLElement).tagName === 'INPUT'
    if (!(event.ctrlKey || event.metaKey) || typing) return
    const key = event.key.toLowerCase()
    if (key === 'z') this.move(event.shiftKey ? 1 : -1)
    else if (key === 'y') this.move(1)
    else return
    event.preventDefault()
  }

  /** A column is read as something else; what cannot be drawn any more is said, and can be mended. */
  private readonly retype = (column: string, type: ColumnTypes[string]): void => {
    this.menu?.close()
    this.data = this.data.retyped(column, type)
    this.options.onTypes?.(this.data.types)
    this.language = languageOf(this.options, this.page.look.locale as string, this.data.table)
    this.render()
    this.columns.querySelectorAll('select').forEach(choice => {
      if (choice.dataset.column === column) choice.focus()
    })
  }

  /** Other data: what was drawn stays, where it can be drawn with them. */
  private use(text: string, name: string): void {
    try {
      this.data = new Data(readCsv(text, { name }))
    } catch (error) {
      this.shown.remarks.alert('This file cannot be read: {why}', (error as Error).message)
      return
    }
    this.language = languageOf(this.options, this.page.look.locale as string, this.data.table)
    const { description } = this
    this.shown.drop()
    this.history = new History(description && this.data.chartOf(description) ? description : undefined)
    this.render()
  }
}
