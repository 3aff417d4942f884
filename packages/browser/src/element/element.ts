import { builtinKinds, DapploError, type Finding, type Source as TableSource } from '@dapplo/core'
import { mediaFormat, namedFormat, openChartData, sendsMessages } from '@dapplo/core/internal-files'
import { type Feed, feed } from '../feed/feed.ts'
import { Patience } from '../feed/feed-sources.ts'
import { mount } from '../full.ts'
import { DEEDS } from '../live/deeds.ts'
import type { Live } from '../live/model.ts'
import { sentenceOf } from '../waiting/mount-when-ready.ts'
import { Sign } from '../waiting/sign.ts'

/** Where there is no page, as on a server, the class can still be imported. */
const Base: typeof HTMLElement = globalThis.HTMLElement ?? (class {} as typeof HTMLElement)

/**
 * `<dapplo-chart src="passengers.chart.json">`, or with the description and its data inside it, in a
 * `<script type="application/json">`. What else stands inside, such as a static picture, is shown until the chart comes
 * alive; without it the element says that it is loading, and in any case what failed, with a button to try again. The page
 * says so in its own way by `<template data-when="loading">` and `<template data-when="failed">` inside, where
 * `[data-why]` gets the reason and `[data-again]` tries again. Attributes: `src`, `theme` (`day`, `night`, `auto`), `locale`, `menu`. Events: `load`, `error`, and `findings`, whose
 * `detail` lists likely mistakes in data and description; and, for what a person does, `pointed`, `clicked`,
 * `doubleClicked`, `selected`, `hidden`, `zoomed` and `played`, whose `detail` is a `Happening`, and which can be prevented.
 */
export class ChartElement extends Base {
  static readonly observedAttributes = ['src', 'theme', 'locale']
  /** The chart, once it has come alive. */
  live: Live | undefined
  private turn = 0
  private inside: string | undefined
  private feeds: Feed[] = []
  private readonly patience = new Patience()
  private readonly templates: { [when in 'loading' | 'failed']?: HTMLTemplateElement } = {}
  private readonly sign = new Sign(this, () => ({
    theme: this.themeWish,
    locale: this.getAttribute('locale') ?? undefined,
    height: this.clientHeight || undefined,
    loading: this.own('loading'),
    failed: this.own('failed'),
  }))

  connectedCallback(): void {
    if (!this.style.display) this.style.display = 'block'
    void this.load()
  }

  disconnectedCallback(): void {
    this.turn++
    this.patience.stop()
    this.sign.clear()
    this.unfollow()
    this.live?.destroy()
    this.live = undefined
  }

  attributeChangedCallback(name: string, before: string | null, now: string | null): void {
    if (before === now || !this.isConnected) return
    if (name === 'theme' && this.live) this.live.reframe({ theme: this.themeWish })
    else if (name !== 'theme') void this.load()
  }

  private get themeWish(): 'day' | 'night' | 'auto' {
    const theme = this.getAttribute('theme')
    return theme === 'night' || theme === 'auto' ? theme : 'day'
  }

  private unfollow(): void {
    for (const feed of this.feeds) feed.close()
    this.feeds = []
  }

  private async load(): Promise<void> {
    const turn = ++this.turn
    this.patience.stop()
    this.sign.loading(this.live !== undefined || this.hasPicture)
    try {
      const { data, base } = await this.description()
      const texts = await textsOf(data, base)
      // Only charts over rows that stay in a database carry what asks for them.
      const far = hasFar(data) ? await import('../far/far-source.ts') : undefined
      if (turn !== this.turn) return
      const { chart, house, feeds } = openChartData(
        data,
        builtinKinds,
        url => texts.get(url) ?? '',
        this.getAttribute('src') ?? 'the description',
        undefined,
        far?.farTableOf,
      )
      await far?.arrived(chart)
      if (turn !== this.turn) return
      const options = {
        theme: this.themeWish,
        house,
        locale: this.getAttribute('locale') ?? undefined,
        menu: this.hasAttribute('menu'),
        onFindings: (findings: readonly Finding[]) =>
          this.dispatchEvent(new CustomEvent('findings', { detail: findings })),
      }
      this.patience.succeeded()
      this.sign.clear()
      this.unfollow()
      if (this.live) this.live.show(chart)
      else {
        this.live = mount(chart, this, { ...options, height: this.clientHeight || undefined })
        this.tellDeeds(this.live)
      }
      this.feeds = feeds.map(({ table, url, ...how }) => feed(table, { ...how, url: followable(url, base) }))
      this.dispatchEvent(new Event('load'))
    } catch (error) {
      if (turn !== this.turn) return
      this.fail(error)
      // What was going to be followed is waited for, as a feed waits.
      if (error instanceof Unreached && error.followed) this.patience.retry(() => void this.load())
    }
  }

  /** What a person does, as events that can be prevented; `detail` says what it means. */
  private tellDeeds(live: Live): void {
    for (const what of DEEDS)
      live.when(what, happening => {
        const event = new CustomEvent(what, { detail: happening, cancelable: true })
        if (!this.dispatchEvent(event)) happening.prevent()
      })
  }

  private async description(): Promise<{ data: unknown; base: string }> {
    const src = this.getAttribute('src')
    if (src !== null) {
      const address = new URL(src, document.baseURI)
      return { data: JSON.parse((await fetchText(address.href)).text), base: address.href }
    }
    // The block goes when the chart comes; its text is kept for when the element is put elsewhere.
    this.inside = this.querySelector('script[type="application/json"]')?.textContent ?? this.inside
    const { inside } = this
    if (!inside)
      throw new DapploError(
        'bad-description',
        'A dapplo-chart has neither a src nor a description inside',
        'src',
        'Give it one of them.',
      )
    return { data: JSON.parse(inside), base: document.baseURI }
  }

  /** Whether something is seen in the place of the chart. */
  private get hasPicture(): boolean {
    return [...this.children].some(
      child => !/^(script|template)$/i.test(child.tagName) && !child.matches(SIGN),
    )
  }

  /** What the page shows in place of a sign: a copy of its `<template data-when="loading">`. */
  private own(when: 'loading' | 'failed') {
    // What stands inside goes when the chart comes.
    const template =
      this.querySelector<HTMLTemplateElement>(`:scope > template[data-when="${when}"]`) ??
      this.templates[when]
    if (!template) return undefined
    this.templates[when] = template
    return (why = '', again?: () => void): Node => {
      const copy = template.content.cloneNode(true) as DocumentFragment
      for (const words of copy.querySelectorAll('[data-why]')) words.textContent = why
      for (const button of copy.querySelectorAll('[data-again]'))
        if (again) button.addEventListener('click', again)
        else button.remove()
      return copy
    }
  }

  /** Says what is wrong in place of the chart; a picture that is there stays. */
  private fail(error: unknown): void {
    const words = error instanceof SyntaxError ? 'The description is not JSON.' : sentenceOf(error)
    // What stands in the page stays as it is: there is nothing to try again.
    this.sign.failed(words, this.hasAttribute('src') ? () => void this.load() : undefined)
    this.dispatchEvent(new CustomEvent('error', { detail: words }))
  }
}

const SIGN = '[data-dapplo="sign"]'

/** An address that did not answer as it should; `followed`: a table goes on asking it. */
class Unreached extends DapploError {
  followed = false
}

/** Whether rows of a description's tables stay in a database. */
function hasFar(data: unknown): boolean {
  const tables = data !== null && typeof data === 'object' && 'tables' in data ? data.tables : undefined
  return Object.values((tables ?? {}) as Record<string, Partial<TableSource>>).some(
    source => source?.frozen !== undefined,
  )
}

/** The texts behind the addresses that a description's tables name. Tables are told the format that an answer names. */
async function textsOf(data: unknown, base: string): Promise<Map<string, string>> {
  const out = new Map<string, string>()
  const tables = data !== null && typeof data === 'object' && 'tables' in data ? data.tables : undefined
  for (const source of Object.values((tables ?? {}) as Record<string, Partial<TableSource>>)) {
    if (typeof source?.url !== 'string' || sendsMessages(source)) continue
    try {
      const { text, type } = await fetchText(new URL(source.url, base).href)
      out.set(source.url, text)
      source.as ??= namedFormat(source.url) ?? mediaFormat(type) ?? 'csv'
    } catch (error) {
      if (error instanceof Unreached) error.followed = source.every !== undefined
      throw error
    }
  }
  const house = data !== null && typeof data === 'object' && 'house' in data ? data.house : undefined
  if (typeof house === 'string') out.set(house, (await fetchText(new URL(house, base).href)).text)
  return out
}

/** The address of news. Throws `bad-address` for one that must not be followed. */
function followable(url: string, base: string): string {
  const address = new URL(url, base)
  if (/^(https?|wss?):$/.test(address.protocol)) return address.href
  throw new DapploError(
    'bad-address',
    `${address.href} is no address that can be followed`,
    'url',
    'Name one by http, https, ws or wss.',
  )
}

async function fetchText(address: string): Promise<{ text: string; type: string | null }> {
  const { protocol } = new URL(address)
  if (protocol !== 'http:' && protocol !== 'https:' && protocol !== 'file:')
    throw new DapploError(
      'bad-address',
      `${address} is no address that can be fetched`,
      'src',
      'Name a file by http or https.',
    )
  const response = await fetch(address).catch(() => {
    throw new Unreached(
      'not-fetched',
      `${address} cannot be reached`,
      'src',
      'Check the address and the connection.',
    )
  })
  if (!response.ok)
    throw new Unreached('not-fetched', `${address} answers ${response.status}`, 'src', 'Check the address.')
  return { text: await response.text(), type: response.headers.get('Content-Type') }
}

/** Makes the element known to the page; once is enough, and twice does no harm. */
export function defineElement(name = 'dapplo-chart'): void {
  if (!customElements.get(name))
    customElements.define(name, name === 'dapplo-chart' ? ChartElement : class extends ChartElement {})
}
