import {
  Chart,
  chart as chartFor,
  DapploError,
  type Description,
  day,
  type Finding,
  night,
  readCsv,
  Table,
} from '@dapplo/core'
import {
  type ColumnFacts,
  factsOf,
  phraseText,
  type SentenceChoice,
  type SettingPath,
  sentenceOf,
  suggestCharts,
  typesOf,
  type Voice,
  voiceOf,
} from '@dapplo/core/sentence'
import { type Live, mount } from 'dapplo'
import { additionsFor } from './choose/additions.ts'
import { colourOffer, scaleOffer } from './choose/direct.ts'
import { mendsFor } from './choose/mend.ts'
import type { Offer, Option, Place } from './choose/model.ts'
import { mayChange, offerFor } from './choose/offers.ts'
import { aboutAt } from './choose/word-at.ts'
import { History } from './history.ts'
import type { Composed, ComposeOptions } from './options.ts'
import { beginnings } from './show/beginnings.ts'
import { columnList } from './show/columns.ts'
import { button, element } from './show/elements.ts'
import { Menu } from './show/menu.ts'
import { findingsIn, picture } from './show/picture.ts'
import { colour, dress } from './show/sheet.ts'

/** A sentence whose words are choices, over the chart that it describes. */
export class Composer implements Composed {
  readonly element: HTMLElement
  live: Live | undefined
  private readonly host = element('div', 'dapplo-composer')
  private readonly root = element('div', 'composer')
  private readonly top = element('div')
  private readonly stage = element('div', 'chart')
  private readonly findings = element('ul', 'findings')
  private readonly columns = element('details')
  private readonly said = element('div', 'said', '', { role: 'status' })
  private readonly options: ComposeOptions
  private readonly dark = matchMedia('(prefers-color-scheme: dark)')
  private readonly ending = new AbortController()
  private tables: readonly [Table, Readonly<Record<string, Table>>]
  private facts: readonly ColumnFacts[]
  private factsAt: unknown
  private voice: Voice
  private history: History<Description | undefined>
  private menu: Menu | undefined

  constructor(place: HTMLElement, options: ComposeOptions) {
    this.element = place
    this.options = options
    this.tables = tablesOf(options.tables)
    this.facts = factsOf(this.table)
    this.factsAt = this.table.version.value
    this.voice = this.voiceNow()
    const first = options.chart instanceof Chart ? options.chart.description : options.chart
    if (first) this.needChart(first)
    this.history = new History<Description | undefined>(first)
    const shadow = this.host.attachShadow({ mode: 'open' })
    dress(shadow)
    this.root.append(this.top, this.stage, this.findings, this.columns, this.said)
    shadow.append(this.root)
    place.replaceChildren(this.host)
    this.colour()
    const { signal } = this.ending
    this.dark.addEventListener('change', () => this.colour(), { signal })
    this.root.addEventListener('keydown', event => this.pressed(event), { signal })
    this.stage.addEventListener('click', event => this.clicked(event), { signal })
    if (options.allow?.files) this.takeFiles(signal)
    this.render()
  }

  get description(): Description | undefined {
    return this.history.now
  }

  get sentence(): string {
    return this.description ? this.sentenceFor(this.description).text : ''
  }

  show(description: Description): void {
    this.needChart(description)
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

  private get table(): Table {
    return this.tables[0]
  }

  private get place(): Place {
    // A table that has changed has other names and ends.
    if (this.factsAt !== this.table.version.value) {
      this.facts = factsOf(this.table)
      this.factsAt = this.table.version.value
    }
    return {
      table: this.table,
      facts: this.facts,
      description: this.history.now as Description,
      allowed: this.options.allow ?? {},
    }
  }

  private readonly say = (words: string, holes?: Readonly<Record<string, string>>): string =>
    this.voice.text(words, holes)

  private voiceNow(): Voice {
    const { house, words, locale } = this.options
    return voiceOf({
      words: { ...(house?.words as Record<string, string>), ...words },
      locale: locale ?? house?.locale,
      columns: typesOf(this.table),
    })
  }

  private sentenceFor(description: Description) {
    const { house, words, locale } = this.options
    return sentenceOf(description, {
      words: { ...(house?.words as Record<string, string>), ...words },
      locale: locale ?? house?.locale,
      columns: typesOf(this.table),
    })
  }

  private needChart = (description: Description): Chart => chartFor(this.table, description, this.tables[1])

  /** The chart of a description, where one can be made. */
  private readonly chartOf = (description: Description): Chart | undefined => {
    try {
      return this.needChart(description)
    } catch (error) {
      if (error instanceof DapploError) return undefined
      throw error
    }
  }

  private get theme() {
    const { theme = 'day' } = this.options
    return (theme === 'auto' ? this.dark.matches : theme === 'night') ? night : day
  }

  private colour(): void {
    colour(this.host, this.theme)
  }

  private readonly draw = (
    canvas: HTMLCanvasElement,
    chart: Chart,
    width: number,
    height: number,
  ): boolean => {
    const { locale } = this.options
    return picture(canvas, chart, { theme: this.theme, house: this.chartHouse, locale, width, height })
  }

  /** The house style without the words that only the composer says. */
  private get chartHouse() {
    return this.options.house
  }

  private step(description: Description | undefined, path?: SettingPath): void {
    this.menu?.close()
    this.history.add(description)
    this.render(path)
    if (description) this.options.onChange?.(description)
    this.host.dispatchEvent(new CustomEvent('change', { bubbles: true, composed: true, detail: description }))
  }

  private move(by: -1 | 1): void {
    if (by < 0 ? !this.history.canUndo : !this.history.canRedo) return
    this.menu?.close()
    this.history.move(by)
    this.render()
    if (this.description) this.options.onChange?.(this.description)
  }

  /** Writes the sentence anew and shows its chart; `path`: what is looked at then. */
  private render(path?: SettingPath): void {
    const { description } = this
    this.stage.hidden = description === undefined
    this.columns.hidden = false
    if (!description) {
      this.live?.destroy()
      this.live = undefined
      this.findings.replaceChildren()
      this.top.replaceChildren(
        beginnings(suggestCharts(this.table), {
          say: this.say,
          sentence: one => this.sentenceFor(one).text,
          chartOf: this.chartOf,
          draw: this.draw,
          begin: one => this.step(one, ['draw']),
        }),
      )
    } else {
      this.top.replaceChildren(this.line(description), this.tools())
      this.showChart(this.needChart(description))
      if (path) this.focusOn(path)
      this.said.textContent = this.sentence
    }
    columnList(this.columns, this.table, this.facts, this.say, this.voice, this.options.allow?.files === true)
  }

  private showChart(chart: Chart): void {
    const told = (findings: readonly Finding[]) => this.tell(findings)
    try {
      if (this.live) this.live.show(chart)
      else {
        const { theme, house, locale } = this.options
        this.live = mount(chart, this.stage, { theme, house, locale, onFindings: told })
      }
      // The chart stands once the running code has ended.
      queueMicrotask(() => this.live && told(this.live.findings))
    } catch (error) {
      if (!(error instanceof DapploError)) throw error
      this.findings.replaceChildren(
        element('li', '', this.say('This cannot be drawn: {why}', { why: error.message })),
      )
    }
  }

  private line(description: Description): HTMLElement {
    const line = element('p', 'sentence', '', { role: 'group', 'aria-label': this.say('What is drawn') })
    for (const piece of this.sentenceFor(description).pieces) {
      if (typeof piece === 'string' || !mayChange(this.place, piece.path)) {
        line.append(typeof piece === 'string' ? piece : piece.text)
        continue
      }
      const word = button(piece.text, 'choice', () => this.open(word, piece))
      word.setAttribute('aria-haspopup', 'dialog')
      word.setAttribute('aria-expanded', 'false')
      word.dataset.path = piece.path.join('.')
      line.append(word)
    }
    const and = button(this.say('and …'), 'and', () => this.openAdditions(and))
    and.setAttribute('aria-haspopup', 'dialog')
    and.setAttribute('aria-expanded', 'false')
    line.append(' ', and)
    return line
  }

  private tools(): HTMLElement {
    const tools = element('div', 'tools', '', { role: 'toolbar', 'aria-label': this.say('Undo') })
    const undo = button(this.say('Undo'), '', () => this.again(tools, 0, () => this.undo()))
    const redo = button(this.say('Redo'), '', () => this.again(tools, 1, () => this.redo()))
    const back = button(this.say('Back to how it was'), '', () => this.restart())
    undo.disabled = !this.history.canUndo
    redo.disabled = !this.history.canRedo
    back.disabled = this.history.now === this.history.first
    tools.append(undo, redo, back)
    if (this.options.onDone || !this.options.onChange) {
      tools.append(
        button(this.say('Done'), 'done', () => {
          if (this.description) this.options.onDone?.(this.description)
          this.host.dispatchEvent(
            new CustomEvent('done', { bubbles: true, composed: true, detail: this.description }),
          )
        }),
      )
    }
    return tools
  }

  /** A tool is pressed again and again: it stays in focus, although it is made anew. */
  private again(_: HTMLElement, index: number, act: () => void): void {
    act()
    const tool = this.top.querySelectorAll<HTMLButtonElement>('.tools button')[index]
    if (tool && !tool.disabled) tool.focus()
    else this.top.querySelector<HTMLElement>('.tools button:not(:disabled), .beginning')?.focus()
  }

  private open(opener: HTMLElement, choice: SentenceChoice): void {
    this.openMenu(
      opener,
      this.say('Instead of “{words}”', { words: choice.text }),
      offerFor(this.place, choice),
    )
  }

  private openAdditions(opener: HTMLElement): void {
    this.openMenu(opener, this.say('Add to the sentence'), {
      options: additionsFor(this.place),
      writings: [],
    })
  }

  private openMenu(opener: HTMLElement, label: string, offer: Offer): void {
    const again = this.menu !== undefined && opener.getAttribute('aria-expanded') === 'true'
    this.menu?.close()
    if (again) return
    this.menu = new Menu(
      {
        root: this.root,
        say: this.say,
        textOf: option => this.textOf(option),
        chartOf: this.chartOf,
        draw: this.draw,
        chosen: (next, path) => this.step(next, path.length > 0 ? path : pathOf(opener)),
        closed: () => {
          this.menu = undefined
        },
      },
      opener,
      label,
      offer,
    )
  }

  private textOf({ words, holes = {}, phrase }: Option): string {
    if (phrase) return phraseText(words, this.voice)
    const own = Object.entries(holes).map(([name, text]) => [
      name,
      name === 'phrase' || name === 'value' ? phraseText(text, this.voice) : text,
    ])
    return this.say(words, Object.fromEntries(own))
  }

  private focusOn(path: SettingPath): void {
    const wanted = path.join('.')
    const words = [...this.top.querySelectorAll<HTMLElement>('.choice')]
    const word =
      words.find(({ dataset }) => dataset.path === wanted) ??
      words.find(({ dataset }) => dataset.path?.startsWith(wanted) || wanted.startsWith(`${dataset.path}.`))
    ;(word ?? this.top.querySelector<HTMLElement>('.and'))?.focus()
  }

  /** Says what the library would regret, with a button where something is known to mend it. */
  private tell(findings: readonly Finding[]): void {
    this.findings.replaceChildren(
      ...findings.map(finding => {
        const line = element('li', '', `${finding.message}. `)
        const next =
          this.description && mendsFor(this.description, finding).find(one => this.mends(one, finding))
        if (!next) line.append(finding.remedy)
        else {
          const mend = button(this.say('Mend this'), 'mend', () => this.step(next, ['draw']))
          mend.setAttribute('aria-label', `${this.say('Mend this')}: ${finding.message}`)
          line.append(mend)
        }
        return line
      }),
    )
  }

  /** Whether a finding is gone from a chart that can be drawn. */
  private mends(description: Description, { code, path }: Finding): boolean {
    const chart = this.chartOf(description)
    if (!chart) return false
    const found = findingsIn(chart, this.stage.clientWidth, this.stage.clientHeight, this.theme)
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
    const { left, top } = this.stage.getBoundingClientRect()
    const about = aboutAt(this.live.scene, this.description, event.clientX - left, event.clientY - top)
    if (!about) return
    if (about.is === 'part') {
      const wanted = about.path.join('.')
      const words = [...this.top.querySelectorAll<HTMLElement>('.choice')]
      const word = words.find(({ dataset: { path = '' } }) => path === wanted || path.endsWith(`.${wanted}`))
      word?.click()
      return
    }
    const path = about.is === 'scale' ? ['scales', about.scale] : ['scales', 'color']
    if (!mayChange(this.place, path)) return
    const around = this.root.getBoundingClientRect()
    const anchor = element('span', 'anchor', '', { tabindex: '-1' })
    anchor.style.left = `${event.clientX - around.left}px`
    anchor.style.top = `${event.clientY - around.top}px`
    this.root.querySelector('.anchor')?.remove()
    this.root.append(anchor)
    const [name, offer] =
      about.is === 'scale'
        ? [about.scale, scaleOffer(this.place, about.scale)]
        : [about.name, colourOffer(this.place, about.name, this.theme)]
    this.openMenu(anchor, this.say('About “{name}”', { name }), offer)
  }

  private takeFiles(signal: AbortSignal): void {
    this.root.addEventListener('dragover', event => event.preventDefault(), { signal })
    this.root.addEventListener(
      'drop',
      event => {
        event.preventDefault()
        const [file] = event.dataTransfer?.files ?? []
        if (file) void file.text().then(text => this.use(text, file.name.replace(/\.\w+$/, '')))
      },
      { signal },
    )
  }

  /** Other data: what was drawn stays, where it can be drawn with them. */
  private use(text: string, name: string): void {
    try {
      this.tables = [readCsv(text, { name }), this.tables[1]]
    } catch (error) {
      this.said.textContent = this.say('This file cannot be read: {why}', { why: (error as Error).message })
      this.findings.replaceChildren(element('li', '', this.said.textContent))
      return
    }
    this.facts = factsOf(this.table)
    this.voice = this.voiceNow()
    const kept = this.description && this.chartOf(this.description) ? this.description : undefined
    this.live?.destroy()
    this.live = undefined
    this.history = new History<Description | undefined>(kept)
    this.render()
  }
}

const pathOf = (word: HTMLElement): SettingPath =>
  (word.dataset.path ?? '').split('.').map(key => (/^\d+$/.test(key) ? Number(key) : key))

function tablesOf(tables: ComposeOptions['tables']): [Table, Readonly<Record<string, Table>>] {
  if (tables instanceof Table) return [tables, {}]
  const [first] = Object.values(tables ?? {})
  if (!(first instanceof Table))
    throw new DapploError(
      'bad-rows',
      'A composer needs a table',
      'tables',
      'Make one with table(rows) or readCsv(text), and give it as tables.',
    )
  return [first, tables as Readonly<Record<string, Table>>]
}
