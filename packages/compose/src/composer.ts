import { Chart, DapploError, type Description, type Finding, readCsv, type Theme } from '@dapplo/core'
import { themeOf, withCommon } from '@dapplo/core/internal'
import { type SettingPath, type Suggestion, suggestCharts } from '@dapplo/core/sentence'
import { type Live, mount } from 'dapplo'
import { pageLocale, pageTheme } from 'dapplo/internal'
import { additionsFor } from './choose/additions.ts'
import { colourOffer, scaleOffer } from './choose/direct.ts'
import { kindsOf } from './choose/edits.ts'
import { mayChange, mayDraw } from './choose/limits.ts'
import { mendsFor } from './choose/mend.ts'
import type { Offer, Place } from './choose/model.ts'
import { offerFor } from './choose/offers.ts'
import { aboutAt } from './choose/word-at.ts'
import { Data } from './data.ts'
import { History } from './history.ts'
import { houseOfCharts, type Language, languageOf } from './language.ts'
import type { Composed, ComposeOptions } from './options.ts'
import { beginnings } from './show/beginnings.ts'
import { columnList } from './show/columns.ts'
import { takesFiles } from './show/drop.ts'
import { anchorAt, element } from './show/elements.ts'
import { pathOf, sentenceLine, type Tool, toolBar, wordFor } from './show/line.ts'
import { Menu } from './show/menu.ts'
import { findingsIn, type Page, picture } from './show/picture.ts'
import { Remarks } from './show/remarks.ts'
import { colour, dress } from './show/sheet.ts'

/** A sentence whose words are choices, over the chart that it describes. */
export class Composer implements Composed {
  readonly element: HTMLElement
  live: Live | undefined
  private readonly host = element('div', 'dapplo-composer')
  private readonly root = element('div', 'composer')
  private readonly top = element('div')
  private readonly stage = element('div', 'chart')
  private readonly columns = element('details')
  private readonly said = element('div', 'said', '', { role: 'status' })
  private readonly options: ComposeOptions
  /** How charts look here. */
  private readonly page: Page
  private readonly dark = matchMedia('(prefers-color-scheme: dark)')
  private readonly ending = new AbortController()
  private data: Data
  private language: Language
  private history: History<Description | undefined>
  private menu: Menu | undefined
  private listed: unknown
  private readonly remarks = new Remarks({
    say: (words, holes) => this.language.say(words, holes),
    now: () => this.description,
    mendOf: finding => mendsFor(this.place, finding).find(one => this.mends(one, finding)),
    mend: next => this.step(next, ['draw']),
  })

  constructor(place: HTMLElement, options: ComposeOptions) {
    this.element = place
    this.options = options
    const { theme, house, look, allow } = options
    const locale = pageLocale(place, options.locale, withCommon(house))
    this.page = { element: place, look: { theme, house: houseOfCharts(house), locale } }
    this.data = new Data(options.tables, look, allow?.columns)
    this.language = languageOf(options, locale, this.data.table)
    const first = options.chart instanceof Chart ? options.chart.description : options.chart
    this.history = new History<Description | undefined>(first)
    const shadow = this.host.attachShadow({ mode: 'open' })
    dress(shadow)
    this.root.append(this.top, this.stage, this.remarks.element, this.columns, this.said)
    shadow.append(this.root)
    place.replaceChildren(this.host)
    const { signal } = this.ending
    colour(this.host, this.theme)
    this.dark.addEventListener('change', () => colour(this.host, this.theme), { signal })
    this.root.addEventListener('keydown', event => this.pressed(event), { signal })
    // Before the chart, which would hold its tooltip open where a person means the words.
    this.stage.addEventListener('click', event => this.clicked(event), { signal, capture: true })
    if (allow?.files) takesFiles(this.root, (text, name) => this.use(text, name), signal)
    this.render()
  }

  get description(): Description | undefined {
    return this.history.now
  }

  get sentence(): string {
    return this.description ? this.language.sentence(this.description).text : ''
  }

  show(description: Description): void {
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
    this.live?.destroy()
    this.host.remove()
  }

  private get place(): Place {
    const { table, facts, look } = this.data
    return {
      table,
      facts,
      look,
      description: this.history.now as Description,
      allowed: this.options.allow ?? {},
    }
  }

  private get theme(): Theme {
    const { theme = 'day', house } = this.page.look
    return themeOf(pageTheme(theme), withCommon(house))
  }

  private readonly draw = (canvas: HTMLCanvasElement, chart: Chart, width: number, height: number): boolean =>
    picture(canvas, chart, { width, height }, this.page)

  private step(description: Description | undefined, path?: SettingPath): void {
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
    this.stage.hidden = description === undefined
    if (description) {
      const { pieces, text } = sentence(description)
      const line = sentenceLine(pieces, {
        say,
        may: choice => mayChange(this.place, choice.path),
        open: (opener, choice) => {
          const label = say('Instead of “{words}”', { words: choice.text })
          this.openMenu(opener, label, offerFor(this.place, choice))
        },
        add: opener => {
          const options = additionsFor(this.place)
          this.openMenu(opener, say('Add to the sentence'), { options, writings: [] })
        },
      })
      this.top.replaceChildren(
        line,
        toolBar(this.tools(), say, index => this.focusTool(index)),
      )
      this.showChart(description)
      if (path) (wordFor(this.top, path) ?? this.top.querySelector<HTMLElement>('.and'))?.focus()
      this.said.textContent = text
    } else {
      this.live?.destroy()
      this.live = undefined
      this.remarks.clear()
      const host = {
        say,
        sentence: (one: Description) => sentence(one).text,
        chartOf: this.data.chartOf,
        draw: this.draw,
        begin: (one: Description) => this.step(one, ['draw']),
      }
      this.top.replaceChildren(beginnings(this.suggestions(), host))
    }
    this.showColumns()
  }

  /** The best charts to begin with, of the kinds that may be drawn. */
  private suggestions(): Suggestion[] {
    const { table, look } = this.data
    return suggestCharts(table, { most: 9, look })
      .filter(({ description }) => kindsOf(description).every(kind => mayDraw(this.place, kind)))
      .slice(0, 3)
  }

  /** The columns of a table, anew once it has changed. */
  private showColumns(): void {
    const { table, look } = this.data
    if (this.listed === look) return
    this.listed = look
    columnList(this.columns, table, look, this.language.voice)
    if (this.options.allow?.files)
      this.columns.append(element('p', '', this.language.say('Drop a CSV file here to use it.')))
  }

  private showChart(description: Description): void {
    const chart = this.data.make(description)
    if (chart instanceof DapploError) return this.refuse(chart)
    try {
      if (this.live) this.live.show(chart)
      else {
        const onFindings = (findings: readonly Finding[]) => this.remarks.tell(findings)
        this.live = mount(chart, this.stage, { ...this.page.look, onFindings })
      }
      // The chart stands once the running code has ended.
      queueMicrotask(() => this.live && this.remarks.tell(this.live.findings))
    } catch (error) {
      if (!(error instanceof DapploError)) throw error
      this.refuse(error)
    }
  }

  /** Says why something cannot be drawn. What was drawn before stays, and the sentence can be mended. */
  private refuse({ message, hint }: DapploError): void {
    const why = hint ? `${message}. ${hint}` : message
    this.remarks.alert('This cannot be drawn: {why}', why)
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
      chosen: (next: Description, path: SettingPath) =>
        this.step(next, path.length > 0 ? path : pathOf(opener)),
      closed: () => {
        this.menu = undefined
      },
    }
    this.menu = new Menu(host, opener, label, offer)
  }

  /** Whether a finding is gone from a chart that can be drawn. */
  private mends(description: Description, { code, path }: Finding): boolean {
    const chart = this.data.chartOf(description)
    const { clientWidth, clientHeight } = this.stage
    const size = { width: clientWidth || 640, height: clientHeight || 360 }
    const found = chart && findingsIn(chart, size, this.page)
    return found !== undefined && !found.some(one => one.code === code && one.path === path)
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

  /** A click on words in the chart offers what they are about. */
  private clicked(event: MouseEvent): void {
    if (!this.live || !this.description) return
    // What a tooltip covers is not meant.
    if (event.target instanceof Element && event.target.closest('.dapplo-tooltip')) return
    const { left, top } = this.stage.getBoundingClientRect()
    const about = aboutAt(this.live.scene, this.description, event.clientX - left, event.clientY - top)
    if (!about) return
    event.stopPropagation()
    if (about.is === 'part') {
      wordFor(this.top, about.path)?.click()
      return
    }
    const path = about.is === 'scale' ? ['scales', about.scale] : ['scales', 'color']
    if (!mayChange(this.place, path)) return
    const anchor = anchorAt(this.root, event)
    const [name, offer] =
      about.is === 'scale'
        ? [about.scale, scaleOffer(this.place, about.scale)]
        : [about.name, colourOffer(this.place, about.name, this.theme)]
    this.openMenu(anchor, this.language.say('About “{name}”', { name }), offer)
  }

  /** Other data: what was drawn stays, where it can be drawn with them. */
  private use(text: string, name: string): void {
    try {
      this.data = new Data(readCsv(text, { name }))
    } catch (error) {
      this.remarks.alert('This file cannot be read: {why}', (error as Error).message)
      return
    }
    this.language = languageOf(this.options, this.page.look.locale as string, this.data.table)
    const { description } = this
    this.live?.destroy()
    this.live = undefined
    this.history = new History(description && this.data.chartOf(description) ? description : undefined)
    this.render()
  }
}
