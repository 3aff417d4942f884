import {
  type Composition,
  readAt,
  runsLeft,
  type Standing,
  type Told,
  type WalkStep,
  walk,
} from '@dapplo/core/internal'
import type { Reading } from '@dapplo/core/small'

export interface KeyHost {
  composition(): Composition
  /** Points at a place, as if the pointer were there; undefined: nowhere. */
  pointAt(place: { x: number; y: number } | undefined): void
  /** What else is told of a reading. */
  more(reading: Reading): readonly Told[]
  /** Says something to those who listen. */
  say(words: string): void
  /** Selects what stands at a reading. */
  select(reading: Reading, adds: boolean): void
  /** Shows the rows behind a reading. */
  open(reading: Reading): void
  zoom(factor: number, x?: number, y?: number): void
  resetZoom(): void
  /** Plays the series at a place as tones, or ends it; whether it may be heard. */
  hear(standing: Standing): boolean
  /** Takes back one thing: a pinned card, a selection, a zoom. Whether there was one. */
  escape(): boolean
}

const STEPS: Record<string, WalkStep> = {
  ArrowRight: 'next',
  ArrowLeft: 'previous',
  ArrowUp: 'up',
  ArrowDown: 'down',
  Home: 'first',
  End: 'last',
}
const WIDER = 1.35
/** The share of a plot that one key moves a zoomed view. */
const MOVE = 0.2

/** Walks through a chart by keys: arrows from value to value, Enter for what lies behind, Escape out. */
export class Keys {
  private readonly element: HTMLElement
  private readonly host: KeyHost
  private standing: Standing | undefined

  constructor(element: HTMLElement, host: KeyHost) {
    this.element = element
    this.host = host
    element.addEventListener('keydown', this.pressed)
    element.addEventListener('blur', this.blurred)
  }

  remove(): void {
    this.element.removeEventListener('keydown', this.pressed)
    this.element.removeEventListener('blur', this.blurred)
  }

  /** Finds its place again after the picture has changed. */
  refresh(): void {
    if (!this.standing) return
    const composition = this.host.composition()
    const pane = composition.panes[this.standing.pane]
    const bound = pane?.bound.drawings.find(drawn => drawn.drawing.index === this.standing!.drawing)
    if (!bound || this.standing.mark >= bound.marks.length) this.leave()
  }

  private leave(): void {
    if (!this.standing) return
    this.standing = undefined
    this.host.pointAt(undefined)
  }

  private readonly blurred = () => this.leave()

  private readonly pressed = (event: KeyboardEvent) => {
    if (event.target !== this.element || event.ctrlKey || event.metaKey || event.altKey) return
    if (this.answer(event)) event.preventDefault()
  }

  /** What a sideways arrow means where a chart runs from the right. */
  private mirrored(key: string): string {
    if (!runsLeft(this.host.composition().tongue.locale)) return key
    return key === 'ArrowRight' ? 'ArrowLeft' : key === 'ArrowLeft' ? 'ArrowRight' : key
  }

  private answer(event: KeyboardEvent): boolean {
    const { host } = this
    const { key } = event
    if (event.shiftKey && key.startsWith('Arrow')) {
      const [x, y] = { ArrowRight: [-1, 0], ArrowLeft: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[key] as [
        number,
        number,
      ]
      host.zoom(1, x * MOVE, y * MOVE)
      return true
    }
    const step = STEPS[this.mirrored(key)]
    if (step) {
      this.step(step)
      return true
    }
    if (key === '+' || key === '=') host.zoom(1 / WIDER)
    else if (key === '-' || key === '_') host.zoom(WIDER)
    else if (key === '0') host.resetZoom()
    else if (key.toLowerCase() === 's') return this.hear()
    else if (key === 'Enter' || key === ' ') {
      const reading = this.reading()
      if (!reading) return false
      if (key === 'Enter') host.open(reading)
      else host.select(reading, event.shiftKey)
    } else if (key === 'Escape') {
      if (host.escape()) return true
      if (!this.standing) return false
      this.leave()
    } else return false
    return true
  }

  /** Of the series where a person stands, or of the first. */
  private hear(): boolean {
    const standing = this.standing ?? walk(this.host.composition(), undefined, 'first')
    return standing !== undefined && this.host.hear(standing)
  }

  private reading(): Reading | undefined {
    const { standing } = this
    return standing && readAt(this.host.composition(), standing.x, standing.y)
  }

  private step(step: WalkStep): void {
    const composition = this.host.composition()
    const { tongue } = composition
    this.standing = walk(composition, this.standing, step)
    if (!this.standing) {
      this.host.say(tongue.say('There is nothing to read.'))
      return
    }
    this.host.pointAt(this.standing)
    const reading = this.reading()
    this.host.say(reading ? spoken(reading, this.host.more(reading)) : tongue.say('No value.'))
  }
}

/** A reading as it is said: where, and what. */
export function spoken(reading: Reading, more: readonly Told[] = []): string {
  const pointed = reading.rows.find(row => row.pointed)
  // What is meant, with all that else is bound to it.
  const rows =
    reading.along === 'point'
      ? reading.rows
      : reading.rows.filter(row => row === pointed || (row.series === undefined && row.key === pointed?.key))
  // A name is said once.
  const said = ({ name, text }: Told) => (name === reading.heading ? text : `${name} ${text}`.trim())
  const values = [...rows, ...more].map(said).join(', ')
  return reading.heading ? `${reading.heading}: ${values}` : values
}
