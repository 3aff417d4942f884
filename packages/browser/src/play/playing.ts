import {
  answeredElsewhere,
  type Composition,
  Playback,
  periodsInTime,
  tablesOf,
  type View,
} from '@dapplo/core/internal'
import type { Chart, Frame, Scene, State, Table } from '@dapplo/core/small'
import { PlayBar } from './play-bar.ts'

/** Milliseconds from one period to the next. */
const EACH = 900

export interface PlayingHost {
  state(): State
  setState(state: State): void
  /** Tells of another period; whether it is to be shown. `rows`: those of the period. */
  allow(state: State, rows: () => { table: Table; rows: ArrayLike<number> }): boolean
  say(words: string): void
  /** Whether pictures in between are wanted at all. */
  smooth(): boolean
}

/** Plays a chart through its periods on the page's clock. The place is state; whether it plays is not. */
export class Playing {
  readonly bar: PlayBar
  private readonly view: View
  private readonly host: PlayingHost
  private playback: Playback
  private made: unknown[]
  private frame = 0
  private before = 0
  private speed = 1
  private loops = false
  private gone = false

  constructor(view: View, host: PlayingHost) {
    this.view = view
    this.host = host
    this.made = this.needs()
    this.playback = this.make()
    this.bar = new PlayBar({
      toggle: () => (this.isPlaying ? this.pause() : this.play()),
      step: by => {
        this.pause()
        const { periods } = this.playback
        const index = Math.max(0, Math.min(periods.length - 1, this.playback.indexAt(this.place) + by))
        this.go(periods[index]?.place ?? 0)
      },
      scrub: place => {
        this.pause()
        this.go(place)
      },
      speed: speed => {
        this.speed = speed
      },
      loop: loops => {
        this.loops = loops
      },
    })
    this.update()
  }

  get isPlaying(): boolean {
    return this.frame !== 0
  }

  /** The view of the period that is reached. */
  get current(): View | undefined {
    return this.playback.viewAt(this.place)
  }

  get scene(): Scene | undefined {
    return this.playback.sceneAt(this.shownPlace)
  }

  /** What the picture is read back from, also between two periods. */
  get composition(): Composition | undefined {
    return this.playback.compositionAt(this.shownPlace)
  }

  private get shownPlace(): number {
    return this.host.smooth() ? this.place : Math.floor(this.place + 1e-6)
  }

  /** The place of the last period. */
  get length(): number {
    return this.playback.length
  }

  /** How far it has been played. */
  get at(): number {
    return this.place
  }

  goTo(place: number): void {
    this.go(place)
  }

  play(): void {
    if (this.isPlaying || this.playback.length === 0) return
    // From the end it begins anew.
    if (this.place >= this.playback.length) this.go(0)
    this.before = performance.now()
    this.frame = requestAnimationFrame(this.tick)
    this.update()
  }

  pause(): void {
    cancelAnimationFrame(this.frame)
    this.frame = 0
    this.update()
  }

  /** Makes the periods anew where the data, the chart or the frame have changed, and shows the place in the bar. */
  update(): void {
    const needs = this.needs()
    if (needs.length !== this.made.length || needs.some((need, i) => need !== this.made[i])) {
      this.made = needs
      this.remake()
    }
    const { periods, length } = this.playback
    const words = periods[this.playback.indexAt(this.place)]?.words ?? ''
    this.bar?.show({ place: this.place, length, words, playing: this.isPlaying })
  }

  remove(): void {
    this.gone = true
    cancelAnimationFrame(this.frame)
    this.bar.element.remove()
  }

  private get place(): number {
    return Math.max(0, Math.min(this.playback?.length ?? 0, this.host.state().at ?? 0))
  }

  private go(place: number): void {
    const state = { ...this.host.state(), at: place }
    const period = this.playback.periods[this.playback.indexAt(place)]
    const rows = () => ({ table: this.view.first.table, rows: period?.rows ?? [] })
    if (
      period !== this.playback.periods[this.playback.indexAt(this.place)] &&
      !this.host.allow(state, rows)
    ) {
      this.pause()
      return
    }
    this.host.setState(state)
    if (!this.isPlaying) this.host.say(this.playback.periods[this.playback.indexAt(place)]?.words ?? '')
    this.update()
  }

  private readonly tick = (now: number) => {
    const each = this.view.first.resolved.description.scales?.through?.each ?? EACH
    // A page that was hidden goes on where it was, not where it would have been.
    const passed = Math.min(100, Math.max(0, now - this.before))
    this.before = now
    let next = this.place + (passed / each) * this.speed
    if (next >= this.playback.length) {
      if (!this.loops) {
        this.go(this.playback.length)
        this.pause()
        return
      }
      next = 0
    }
    this.frame = requestAnimationFrame(this.tick)
    this.go(next)
  }

  private needs(): unknown[] {
    const { frame, state, chart } = this.view
    const { hidden, zoom, selected } = state.value
    const versions = tablesOf(chart.value).map(table => table.version.value)
    return [chart.value, frame.value, hidden, zoom, selected, ...versions]
  }

  /** What is played, but for the place that is reached. */
  private played(): [chart: Chart, state: State, frame: Frame] {
    const { at: _, ...state } = this.view.state.peek()
    return [this.view.first, state, this.view.frame.peek() as Frame]
  }

  private make(): Playback {
    return new Playback(...this.played())
  }

  /** The old periods stay for as long as new ones are on their way from elsewhere. */
  private remake(): void {
    const { made } = this
    if (!answeredElsewhere(this.view.first.table)) {
      this.playback = this.make()
      return
    }
    periodsInTime(...this.played()).then(
      () => {
        if (this.gone || this.made !== made) return
        this.playback = this.make()
        this.update()
        this.host.setState({ ...this.host.state() })
      },
      // What failed is told by the chart itself, which asks the same.
      () => {},
    )
  }
}
