import {
  type Chart,
  checkState,
  DapploError,
  type Finding,
  type Frame,
  leadOf,
  readAt,
  type Scene,
  Spread,
  type State,
  selectionsOf,
  sharedScales,
  type Timing,
  tablesOf,
  View,
} from '@dapplo/core/small'
import { effect } from '@preact/signals-core'
import { staleWords } from '../feed/stale-words.ts'
import { Pointer } from '../point/pointer.ts'
import { pointedRow, Telling } from '../point/telling.ts'
import type { FilmOptions } from '../save/record.ts'
import type { Abilities, Installed, Live, MountOptions, PartHost } from './model.ts'
import { Neighbours } from './neighbours.ts'
import { followPage, pageFrame, pageTiming } from './page-frame.ts'
import { checkParts, missing } from './part.ts'
import { changeAt, readPath } from './paths.ts'
import { Player } from './player.ts'
import { join, leave, type Member, tellAll } from './registry.ts'
import { Stage } from './stage.ts'

/** Milliseconds between changes below which motion gives way. */
const HURRY = 120

/** A chart on a page: shows a view and reads its values; its parts hand on to its state what else the person does. */
export class LiveChart implements Live, Member, PartHost {
  readonly element: HTMLElement
  readonly live: Live = this
  readonly view: View
  readonly stage: Stage
  readonly pointer: Pointer
  readonly can: Abilities = {}
  options: MountOptions
  private readonly player: Player
  private readonly installed: Installed[]
  private readonly undo: (() => void)[] = []
  private readonly neighbours: Neighbours
  private lastDrawn = 0
  private due = false
  private still = true
  private fonts = 0
  private gone = false

  constructor(chart: Chart | Spread, element: HTMLElement, options: MountOptions) {
    this.element = element
    this.options = options
    const parts = options.parts ?? []
    checkParts(chart, parts)
    this.stage = new Stage(element, options.height)
    this.view = new View(chart, options.state ?? {}, { ...this.frame(), width: 1, height: 1 })
    this.pointer = new Pointer(this.stage, {
      composition: () => this.current.composition.value,
      ready: () => !this.player.moving,
      tooltip: () => this.first.description.tooltip !== false,
      content: new Telling(this.view),
      pointed: reading => {
        const row = reading && pointedRow(reading)
        this.stage.root.style.cursor = row?.link === undefined ? '' : 'pointer'
        this.neighbours.tellPointed(reading)
      },
      // Where drags mean something, the part that knows them says what a click is.
      clicked: parts.some(part => part.name === 'exploring')
        ? undefined
        : place => this.clicked(place, false),
    })
    this.installed = parts.map(part => part.install(this))
    this.settle()
    this.view.frame.value = this.frame()
    this.player = new Player(
      this.can.moves,
      scene => this.stage.paint(scene, this.view.frame.peek().density ?? 1),
      () => this.due && this.redraw(),
    )
    // What other charts ask of this one is part of its first picture.
    this.neighbours = new Neighbours(this, this.view)
    try {
      this.player.appear(this.goal, this.motion)
    } catch (error) {
      this.takeDown()
      throw error
    }
    this.listen()
    join(this)
    this.afterDrawing()
  }

  get chart(): Chart | Spread {
    return this.view.chart.value
  }

  get scene(): Scene {
    return this.player.scene
  }

  get state(): State {
    return this.view.state.value
  }

  set state(state: State) {
    checkState(state)
    this.view.state.value = state
  }

  get findings(): readonly Finding[] {
    return this.view.findings
  }

  get moving(): boolean {
    return this.player.moving
  }

  show(chart: Chart | Spread): void {
    checkParts(chart, this.options.parts ?? [])
    const before = this.view.chart.value
    this.view.chart.value = chart
    try {
      void this.view.scene
    } catch (error) {
      this.view.chart.value = before
      throw error
    }
    tellAll(this)
  }

  reframe(options: Pick<MountOptions, 'theme' | 'house' | 'locale' | 'background'>): void {
    this.options = { ...this.options, ...options }
    this.refresh()
  }

  watch(listener: (state: State) => void): () => void {
    let before = this.view.state.peek()
    const stop = effect(() => {
      const state = this.view.state.value
      if (state === before) return
      before = state
      try {
        listener(state)
      } catch (error) {
        // A listener that fails must not take the chart with it.
        reportError(error)
      }
    })
    this.undo.push(stop)
    return stop
  }

  selectedRows(): unknown[] {
    const { root } = this.view
    const places = new Map(Array.from(root.serials, (serial, row) => [serial, row]))
    const rows = Array.from(this.state.selected ?? [], serial => places.get(serial))
    return root.rows(rows.filter((row): row is number => row !== undefined))
  }

  toPng(): Promise<Blob> {
    return this.able('png', 'toPng')(this.goal)
  }

  toSvg(): string {
    return this.able('svg', 'toSvg')(this.goal)
  }

  toWebm(options: FilmOptions = {}): Promise<Blob> {
    return this.able('film', 'toWebm')(options)
  }

  toCsv(): string {
    return this.able('csv', 'toCsv')(this.current.composition.value)
  }

  /** What the part for saving brings. */
  private able<A extends 'png' | 'svg' | 'csv' | 'film'>(
    ability: A,
    call: string,
  ): NonNullable<Abilities[A]> {
    const found = this.can[ability]
    if (!found) throw missing('saving', call)
    return found
  }

  destroy(): void {
    if (this.gone) return
    this.gone = true
    for (const undo of this.undo) undo()
    selectionsOf(this.view.root).set(this.view, undefined)
    leave(this)
    this.player.stop()
    this.takeDown()
    this.options.onDestroy?.()
  }

  private takeDown(): void {
    this.pointer.remove()
    for (const part of this.installed) part.remove?.()
    this.stage.remove()
  }

  // What other charts on the page know of this one.

  get id(): string | undefined {
    return this.chart.description.id
  }

  get shared(): ReadonlyMap<string, string> {
    return sharedScales(this.first.description)
  }

  endsOf(scale: string): { min: number; max: number } | undefined {
    return this.view.own.peek().get(scale)
  }

  neighboursChanged(): void {
    if (!this.gone) this.neighbours.changed()
  }

  pointedElsewhere(scale: string, value: number | undefined): void {
    const place =
      value === undefined ? undefined : this.current.composition.value.panes[0]?.scales.get(scale)?.map(value)
    this.pointer.pointElsewhere(scale === 'x' ? place : undefined)
  }

  zoomedElsewhere(scale: string, ends: readonly [number, number] | undefined): void {
    const { [scale]: now, ...rest } = this.state.zoom ?? {}
    if (JSON.stringify(now) === JSON.stringify(ends)) return
    this.jump()
    this.state = { ...this.state, zoom: ends ? { ...rest, [scale]: ends } : rest }
  }

  /** What this chart is about: its selected, else its leading shape. Reading it makes an effect follow it. */
  get lead() {
    return leadOf(this.view.composition.value, this.view.root, this.view.state.value.selected)
  }

  /** The view that is shown: of the period that is reached, where the chart is played. */
  get current(): View {
    return this.can.playing?.current ?? this.view
  }

  /** The scene that ought to be on screen. */
  private get goal(): Scene {
    return this.can.playing?.scene ?? this.view.scene
  }

  play(): void {
    this.can.playing?.play()
  }

  pause(): void {
    this.can.playing?.pause()
  }

  /** The chart that speaks for all of a spread. */
  private get first(): Chart {
    return this.view.first
  }

  private get density(): number {
    return window.devicePixelRatio || 1
  }

  get glides(): boolean {
    return this.can.moves !== undefined && this.motion !== undefined
  }

  private get motion(): Timing | undefined {
    return pageTiming(this.first.description.motion ?? this.options.house?.motion)
  }

  private frame(): Frame {
    return pageFrame(this.element, this.stage.size(), this.density, this.options)
  }

  /** Everything that follows from a change: one drawing a frame, however often things change. */
  private listen(): void {
    this.undo.push(
      effect(() => {
        for (const table of tablesOf(this.view.chart.value)) table.version.value
        this.view.state.value
        this.view.frame.value
        this.view.preview.value
        this.view.detail.value
        this.view.outer.value
        this.view.followOthers()
        this.schedule()
      }),
      effect(() => selectionsOf(this.view.root).set(this.view, this.view.state.value.selected)),
      ...this.neighbours.listen(),
      effect(() => this.stage.notice(staleWords(this.view))),
    )
    this.undo.push(
      followPage(this.element, {
        changed: () => this.refresh(),
        fontsLoaded: () => {
          this.fonts++
          this.refresh()
        },
        // Paper gets lines and letters rather than pixels.
        printing: prints => this.stage.print(prints ? this.can.svg?.(this.player.goal) : undefined),
      }),
    )
  }

  /** Takes the frame anew: size, density, theme. A new frame is shown at once, without motion. */
  refresh(): void {
    // Before the first picture there is nothing to refresh: it takes its frame when all is in place.
    if (this.gone || !this.player) return
    const next = this.frame()
    const now = this.view.frame.peek()
    const same = (['width', 'height', 'density', 'theme', 'house', 'locale', 'background'] as const).every(
      key => next[key] === now[key],
    )
    if (same && this.fonts === 0) return
    this.fonts = 0
    this.still = false
    this.view.frame.value = next
  }

  jump(): void {
    this.still = false
  }

  private schedule(): void {
    this.due = true
    this.player.wake()
  }

  private redraw(): void {
    this.due = false
    if (this.gone) return
    this.can.playing?.update()
    const scene = this.goal
    const now = performance.now()
    const since = now - this.lastDrawn
    if (scene !== this.player.goal) {
      this.lastDrawn = now
      const motion = this.motion
      // News that come faster than they can be shown are not glided to, or the picture would never catch up.
      const hurried = this.player.moving && since < HURRY
      if (this.still && motion && !hurried && !this.can.playing) this.player.glide(scene, motion)
      else this.player.jump(scene)
    }
    this.still = true
    this.afterDrawing()
    this.pointer.refresh()
  }

  private settle(): void {
    for (const part of this.installed) part.settle?.()
  }

  private afterDrawing(): void {
    const composition = this.current.composition.value
    this.stage.name(this.current.scene, composition.tongue)
    this.stage.dress(composition.theme)
    this.stage.busy(this.current.waiting)
    for (const part of this.installed) part.drawn?.(composition)
  }

  say(words: string): void {
    this.stage.say(words)
  }

  // Controls.

  read(path: string): unknown {
    return path.startsWith('state.')
      ? readPath(this.state, path.slice(6))
      : readPath(this.chart.description, path)
  }

  write(path: string, value: unknown): void {
    if (path.startsWith('state.')) {
      this.state = { ...this.state, ...changeAt(this.state, path.slice(6), value) }
      return
    }
    const { chart } = this
    if (chart instanceof Spread) return
    try {
      this.show(chart.with(changeAt(chart.description, path, value) as never))
    } catch (error) {
      // A value that the data make impossible leaves the chart as it was.
      this.afterDrawing()
      this.stage.say(error instanceof DapploError ? error.sentence : String(error))
    }
  }

  clicked(place: { x: number; y: number }, adds: boolean): void {
    const reading = readAt(this.current.composition.value, place.x, place.y)
    // Where the shape that is meant leads to.
    const link = reading && pointedRow(reading)?.link
    if (link !== undefined && !adds) window.open(link, '_blank', 'noopener')
    else if (!this.can.click?.(place, adds)) this.pointer.pin(!this.pointer.isPinned)
  }
}
