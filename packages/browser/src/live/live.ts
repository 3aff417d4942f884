import {
  type Composition,
  checkState,
  readAt,
  selectionsOf,
  type Timing,
  View,
  withCommon,
} from '@dapplo/core/internal'
import type { Chart, Finding, Frame, Scene, Spread, State } from '@dapplo/core/small'
import { Pointer } from '../point/pointer.ts'
import { pointedRow, Telling } from '../point/telling.ts'
import type { RecordingOptions } from '../save/record.ts'
import { Deeds, rowsOfSerials } from './deeds.ts'
import { followAll } from './follow-all.ts'
import { PageMember } from './member.ts'
import type { Abilities, Installed, Live, MountOptions, PartHost } from './model.ts'
import { Moment } from './moment.ts'
import { noRoom, pageFrame, pageTiming, sameFrame } from './page-frame.ts'
import { checkParts, need } from './part.ts'
import { Player } from './player.ts'
import { Stage } from './stage.ts'
import { sharesPlaces, watchState } from './state.ts'
import { Findings } from './tell-findings.ts'

/** A chart on a page: shows a view and reads its values; its parts hand on to its state what else the person does. */
export class LiveChart implements Live, PartHost {
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
  private readonly member: PageMember
  private readonly told = new Findings(
    () => this.findings,
    () => this.options.onFindings,
  )
  private readonly deeds = new Deeds(this)
  private readonly way = new Moment()
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
    this.stage.pictured = () => this.told.changed()
    this.view = new View(chart, options.state ?? {}, pageFrame(element, noRoom, options))
    this.pointer = new Pointer(this.stage, {
      composition: () => this.composition,
      sharesPlaces: () => sharesPlaces(this.view.pictured.value),
      ready: () => !this.player.moving || this.moment !== undefined,
      moving: () => this.player.moving,
      tooltip: () => this.view.first.description.tooltip !== false,
      content: new Telling(this.view, () => this.pointer.refresh()),
      allows: reading => this.deeds.allowPointed(reading),
      pointed: reading => {
        const row = reading && pointedRow(reading)
        this.stage.root.style.cursor = row?.link === undefined ? '' : 'pointer'
        this.member.tellPointed(reading)
      },
      // Where drags mean something, the part that knows them says what a click is.
      clicked: parts.some(part => part.name === 'exploring')
        ? undefined
        : place => this.clicked(place, false),
    })
    this.installed = parts.map(part => part.install(this))
    for (const installed of this.installed) installed.settle?.()
    this.view.frame.value = this.frame()
    this.player = new Player(
      this.can.moves,
      scene => this.stage.paint(scene, this.view.frame.peek().density ?? 1),
      () => this.due && this.redraw(),
    )
    this.member = new PageMember(this)
    try {
      this.player.appear(this.goal, this.motion)
    } catch (error) {
      this.takeDown()
      throw error
    }
    this.undo.push(
      ...followAll(this, this.member, {
        schedule: () => this.schedule(),
        fontsLoaded: () => {
          this.fonts++
          this.refresh()
        },
      }),
    )
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
    return [...this.view.findings, ...this.stage.surroundings.findings]
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
    this.member.changed()
  }

  reframe(options: Pick<MountOptions, 'theme' | 'house' | 'locale' | 'background'>): void {
    this.options = { ...this.options, ...options }
    this.refresh()
  }

  watch(listener: (state: State) => void): () => void {
    const stop = watchState(this.view, listener)
    this.undo.push(stop)
    return stop
  }

  async selectedRows(): Promise<any[]> {
    const { table, rows } = rowsOfSerials(this.view, this.state.selected ?? [])
    return table.rowsInTime(rows)
  }

  readonly when: Live['when'] = (what, listener) => this.deeds.when(what, listener)
  readonly allow: PartHost['allow'] = (what, details) => this.deeds.allow(what, details)

  toPng({ end = false }: { end?: boolean } = {}): Promise<Blob> {
    return need(this.can.png, 'saving', 'toPng')(end ? this.goal : this.scene)
  }

  toSvg({ end = false }: { end?: boolean } = {}): string {
    return need(this.can.svg, 'saving', 'toSvg')(end ? this.goal : this.scene)
  }

  toWebm(options: RecordingOptions = {}): Promise<Blob> {
    return need(this.can.film, 'saving', 'toWebm')(options)
  }

  toCsv(): string {
    return need(this.can.csv, 'saving', 'toCsv')(this.current.composition.value)
  }

  destroy(): void {
    if (this.gone) return
    this.gone = true
    this.told.end()
    for (const undo of this.undo) undo()
    selectionsOf(this.view.root).set(this.view, undefined)
    this.member.leave()
    this.player.stop()
    this.takeDown()
    this.options.onDestroy?.()
  }

  private takeDown(): void {
    this.pointer.remove()
    for (const installed of this.installed) installed.remove?.()
    this.stage.remove()
  }

  /** The view that is shown: of the period that is reached, where the chart is played. */
  get current(): View {
    return this.can.playing?.current ?? this.view
  }

  get composition(): Composition {
    return this.can.playing?.composition ?? this.moment ?? this.view.composition.value
  }

  /** What is shown on the way to another picture. */
  private get moment(): Composition | undefined {
    return this.player && !this.can.playing ? this.way.read(this.player, this.can.moves) : undefined
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

  get glides(): boolean {
    return this.can.moves !== undefined && this.motion !== undefined
  }

  private get motion(): Timing | undefined {
    return pageTiming(this.view.first.description.motion ?? withCommon(this.options.house)?.motion)
  }

  private frame(): Frame {
    return pageFrame(this.element, this.stage.size(), this.options)
  }

  /** Takes the frame anew: size, density, theme. A new frame is shown at once, without motion. */
  refresh(): void {
    // Before the first picture there is nothing to refresh: it takes its frame when all is in place.
    if (this.gone || !this.player) return
    const next = this.frame()
    if (this.fonts === 0 && sameFrame(next, this.view.frame.peek())) return
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
    if (scene !== this.player.goal) {
      const motion = this.still && !this.can.playing ? this.motion : undefined
      this.way.go(this.player, this.can.moves, scene, motion)
    }
    this.still = true
    this.afterDrawing()
    this.pointer.refresh()
  }

  private afterDrawing(): void {
    const composition = this.current.composition.value
    this.way.arrive(composition)
    this.stage.name(this.current.scene, composition.tongue, this.options.tones)
    this.stage.dress(composition.theme)
    this.stage.busy(this.current.waiting)
    for (const installed of this.installed) installed.drawn?.(composition)
    this.told.changed()
    this.member.drawn()
  }

  say(words: string): void {
    this.stage.say(words)
  }

  clicked(place: { x: number; y: number }, adds: boolean): void {
    const reading = readAt(this.composition, place.x, place.y)
    if (!this.allow('clicked', { reading })) return
    // Where the shape that is meant leads to.
    const link = reading && pointedRow(reading)?.link
    if (link !== undefined && !adds) window.open(link, '_blank', 'noopener')
    else if (!this.can.click?.(place, adds)) this.pointer.tapped()
  }
}
