import {
  type Chart,
  DapploError,
  type Description,
  type Finding,
  type Frame,
  hotspots,
  leadOf,
  readAt,
  type Scene,
  Spread,
  type State,
  selectionsOf,
  sharedScales,
  tablesOf,
  toSvgText,
  View,
} from '@dapplo/core/small'
import { effect } from '@preact/signals-core'
import { Controls } from './controls.ts'
import { Gestures } from './gestures.ts'
import { Keys } from './keys.ts'
import { Menu } from './menu.ts'
import { menuItems } from './menu-items.ts'
import type { Live, MountOptions } from './mount.ts'
import { Neighbours } from './neighbours.ts'
import { followPage, pageFrame, timingOf } from './page-frame.ts'
import { changeAt, readPath } from './paths.ts'
import { Player, type Timing } from './player.ts'
import { Playing } from './playing.ts'
import { Pointer } from './pointer.ts'
import { record } from './record.ts'
import { join, leave, type Member, tellAll } from './registry.ts'
import { csvOf, pngOf } from './save.ts'
import { Selecting } from './selecting.ts'
import { Spots } from './spots.ts'
import { Stage } from './stage.ts'
import { staleWords } from './stale-words.ts'
import { Telling } from './telling.ts'
import { directionsOf, type Zoom } from './zoom.ts'

/** Milliseconds between changes below which motion gives way. */
const HURRY = 120

/** A chart on a page: shows a view, and hands on what the person does to its state. */
export class LiveChart implements Live, Member {
  readonly element: HTMLElement
  private readonly view: View
  private readonly stage: Stage
  private readonly player: Player
  private readonly pointer: Pointer
  private readonly gestures: Gestures
  private readonly spots: Spots
  private readonly keys: Keys
  private menu: Menu | undefined
  private controls: Controls | undefined
  private options: MountOptions
  private readonly undo: (() => void)[] = []
  private readonly neighbours: Neighbours
  private readonly selecting: Selecting
  private readonly telling: Telling
  private playing: Playing | undefined
  private lastDrawn = 0
  private due = false
  private still = true
  private fonts = 0
  private gone = false

  constructor(chart: Chart | Spread, element: HTMLElement, options: MountOptions) {
    this.element = element
    this.options = options
    this.stage = new Stage(element, options.height)
    this.view = new View(chart, options.state ?? {}, { ...this.frame(), width: 1, height: 1 })
    this.putControls()
    this.putPlayBar()
    this.view.frame.value = this.frame()
    this.player = new Player(
      scene => this.stage.paint(scene, this.density),
      () => this.due && this.redraw(),
    )
    this.selecting = new Selecting(this.view, {
      setState: state => {
        this.jump()
        this.state = state
      },
      say: words => this.stage.say(words),
    })
    this.telling = new Telling(this.view, element, () => this.stage.focus.focus())
    // What other charts ask of this one is part of its first picture.
    this.neighbours = new Neighbours(this, this.view)
    try {
      this.player.appear(this.goal, this.motion)
    } catch (error) {
      this.stage.remove()
      throw error
    }
    this.stage.name(this.view.scene)
    this.pointer = new Pointer(this.stage, {
      composition: () => this.current.composition.value,
      ready: () => !this.player.moving,
      tooltip: () => this.first.description.tooltip !== false,
      content: this.telling,
      pointed: reading => {
        const row = reading?.rows.find(one => one.pointed) ?? reading?.rows[0]
        this.stage.root.style.cursor = row?.link === undefined ? '' : 'pointer'
        this.neighbours.tellPointed(reading)
      },
    })
    this.gestures = new Gestures(this.stage, {
      composition: () => this.current.composition.value,
      directions: () => directionsOf(this.first.description.zoom),
      gestures: () => this.selecting.gestures,
      zoom: () => this.state.zoom ?? {},
      setZoom: (zoom, gently) => this.setZoom(zoom, gently),
      clicked: (place, adds) => this.clicked(place, adds),
      outlined: (outline, box, adds, done) => this.selecting.outline(outline, box, adds, done),
      quiet: quiet => quiet && this.pointer.pointAt(undefined),
    })
    this.spots = new Spots(this.stage.root, {
      selects: () => this.selecting.gestures.length > 0,
      preview: key => {
        this.jump()
        this.view.preview.value = key
      },
      toggle: (key, alone) => this.selecting.toggle(key, alone),
      selectEntry: (key, adds) => this.selecting.entry(key, adds),
      selectPlace: (pane, scale, value, adds) => this.selecting.place(pane, scale, value, adds),
    })
    this.keys = new Keys(this.stage.focus, {
      composition: () => this.current.composition.value,
      pointAt: place => this.pointer.pointAt(place),
      say: words => this.stage.say(words),
      select: (reading, adds) => this.selecting.gestures.length > 0 && this.selecting.reading(reading, adds),
      open: reading => this.telling.openRows(reading),
      zoom: (factor, x, y) => this.gestures.byKey(factor, x, y),
      resetZoom: () => this.setZoom({}, true),
      escape: () => this.escape(),
    })
    if (options.menu)
      this.menu = new Menu(
        this.stage.root,
        menuItems(this, this.view, this.telling, words => this.stage.say(words)),
        words => this.stage.say(words),
      )
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
    this.view.state.value = state
  }

  get findings(): readonly Finding[] {
    return this.view.findings
  }

  get moving(): boolean {
    return this.player.moving
  }

  show(chart: Chart | Spread): void {
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
    return pngOf(this.view.scene, this.stage.surroundings)
  }

  toSvg(): string {
    return toSvgText(this.view.scene)
  }

  toWebm(options: { signal?: AbortSignal; progress?: (share: number) => void } = {}): Promise<Blob> {
    return record(this.playing, this.stage.canvas, options)
  }

  toCsv(): string {
    return csvOf(this.view.composition.value)
  }

  destroy(): void {
    if (this.gone) return
    this.gone = true
    for (const undo of this.undo) undo()
    selectionsOf(this.view.root).set(this.view, undefined)
    leave(this)
    this.player.stop()
    this.pointer.remove()
    this.gestures.remove()
    this.spots.remove()
    this.keys.remove()
    this.menu?.remove()
    this.telling.remove()
    this.playing?.remove()
    this.stage.remove()
    this.options.onDestroy?.()
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
      value === undefined ? undefined : this.view.composition.value.panes[0]?.scales.get(scale)?.map(value)
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
  private get current(): View {
    return this.playing?.current ?? this.view
  }

  /** The scene that ought to be on screen. */
  private get goal(): Scene {
    return this.playing?.scene ?? this.view.scene
  }

  play(): void {
    this.playing?.play()
  }

  pause(): void {
    this.playing?.pause()
  }

  /** The chart that speaks for all of a spread. */
  private get first(): Chart {
    return this.view.first
  }

  private get density(): number {
    return window.devicePixelRatio || 1
  }

  private get motion(): Timing | undefined {
    return timingOf(this.first.description.motion ?? this.options.house?.motion)
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
      followPage(this.element, this.density, {
        changed: () => this.refresh(),
        fontsLoaded: () => {
          this.fonts++
          this.refresh()
        },
        // Paper gets lines and letters rather than pixels.
        printing: prints => this.stage.print(prints ? toSvgText(this.player.goal) : undefined),
      }),
    )
  }

  /** Takes the frame anew: size, density, theme. A new frame is shown at once, without motion. */
  private refresh(): void {
    if (this.gone) return
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

  /** The next picture is shown at once: what follows a hand must not lag behind it. */
  private jump(): void {
    this.still = false
  }

  private schedule(): void {
    this.due = true
    this.player.wake()
  }

  private redraw(): void {
    this.due = false
    if (this.gone) return
    this.playing?.update()
    const scene = this.goal
    const now = performance.now()
    const since = now - this.lastDrawn
    if (scene !== this.player.goal) {
      this.lastDrawn = now
      const motion = this.motion
      // News that come faster than they can be shown are not glided to, or the picture would never catch up.
      const hurried = this.player.moving && since < HURRY
      if (this.still && motion && !hurried && !this.playing) this.player.glide(scene, motion)
      else this.player.jump(scene)
    }
    this.still = true
    this.afterDrawing()
    this.pointer.refresh()
  }

  private afterDrawing(): void {
    const composition = this.current.composition.value
    this.stage.name(this.current.scene)
    this.stage.dress(composition.theme)
    this.putControls()
    this.putPlayBar()
    this.playing?.bar.dress(composition.theme)
    this.controls?.update()
    this.controls?.dress(composition.theme)
    this.menu?.dress(composition.theme)
    this.gestures.update()
    this.keys.refresh()
    this.spots.show(hotspots(composition, this.view.frame.value.measure))
  }

  private putControls(): void {
    const list = (this.view.chart.value.description as Description).controls ?? []
    if (this.controls?.isFor(list) || (!this.controls && list.length === 0)) return
    this.controls = list.length === 0 ? undefined : new Controls(list, this)
    this.stage.putControls(this.controls?.element)
    this.refresh()
  }

  /** A chart with periods has controls to play it; one that lost them has none. */
  private putPlayBar(): void {
    const plays = this.view.first.resolved.throughMeaning !== undefined
    if (plays === (this.playing !== undefined)) return
    this.playing?.remove()
    this.playing = plays
      ? new Playing(this.view, {
          state: () => this.state,
          setState: state => {
            this.state = state
          },
          say: words => this.stage.say(words),
          smooth: () => this.motion !== undefined,
        })
      : undefined
    this.stage.putFoot(this.playing?.bar.element)
    if (this.player) this.refresh()
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
      this.controls?.update()
      this.stage.say(error instanceof DapploError ? error.sentence : String(error))
    }
  }

  // Zoom and clicks.

  private setZoom(zoom: Zoom, gently: boolean): void {
    if (JSON.stringify(zoom) === JSON.stringify(this.state.zoom ?? {})) return
    if (!gently) this.jump()
    const { zoom: _, ...rest } = this.state
    this.state = Object.keys(zoom).length > 0 ? { ...rest, zoom } : rest
  }

  private clicked(place: { x: number; y: number }, adds: boolean): void {
    const { gestures } = this.selecting
    const link = this.linkAt(place)
    if (link !== undefined && !adds) window.open(link, '_blank', 'noopener')
    else if (gestures.includes('click')) this.selecting.click(place, adds)
    else if (gestures.length > 0) this.selecting.clear()
    else this.pointer.pin(!this.pointer.isPinned)
  }

  /** Where the shape at a place leads to. */
  private linkAt(place: { x: number; y: number }): string | undefined {
    const reading = readAt(this.view.composition.value, place.x, place.y)
    return (reading?.rows.find(row => row.pointed) ?? reading?.rows[0])?.link
  }

  private escape(): boolean {
    if (this.pointer.isPinned) this.pointer.pin(false)
    else if (this.selecting.clear()) return true
    else if (Object.keys(this.state.zoom ?? {}).length > 0) this.setZoom({}, true)
    else return false
    return true
  }
}
