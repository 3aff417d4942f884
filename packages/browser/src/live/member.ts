import { type Insets, leadOf, type ScaleEnds, sharedScales, type View } from '@dapplo/core/internal'
import type { Reading } from '@dapplo/core/small'
import type { Live, PartHost } from './model.ts'
import { type Leading, Neighbours } from './neighbours.ts'
import { join, leave, tellAll } from './registry.ts'

/** What the other charts on the page know of a live chart, and ask of it. */
export class PageMember implements Leading {
  readonly live: Live
  private readonly host: PartHost
  private readonly neighbours: Neighbours
  private gone = false

  constructor(host: PartHost) {
    this.host = host
    this.live = host.live
    // What other charts ask of this one is part of its first picture.
    this.neighbours = new Neighbours(this, host.view)
  }

  /** Makes it known to the others; returns what ends its following them. */
  join(): (() => void)[] {
    join(this)
    return this.neighbours.listen()
  }

  leave(): void {
    this.gone = true
    leave(this)
  }

  /** Tells the others that it is not what it was. */
  changed(): void {
    tellAll(this)
  }

  tellPointed(reading: Reading | undefined): void {
    this.neighbours.tellPointed(reading)
  }

  get current(): View {
    return this.host.current
  }

  get id(): string | undefined {
    return this.live.chart.description.id
  }

  get explains(): boolean {
    return this.host.view.first.description.detailOf !== undefined
  }

  get shared(): ReadonlyMap<string, string> {
    return sharedScales(this.host.view.first.description)
  }

  /** What this chart is about: its selected, else its leading shape. Reading it makes an effect follow it. */
  get lead() {
    const { view } = this.host
    return leadOf(view.composition.value, view.root, view.state.value.selected)
  }

  endsOf(scale: string): ScaleEnds | undefined {
    return this.host.view.own.peek().get(scale)
  }

  get width(): number {
    return this.host.view.frame.peek().width
  }

  get insets(): Insets | undefined {
    return this.host.view.composition.peek().insets
  }

  /** After each drawing: tells those who line up with it when it needs another room. */
  drawn(): void {
    this.neighbours.tellRoom()
  }

  neighboursChanged(): void {
    if (!this.gone) this.neighbours.changed()
  }

  pointedElsewhere(scale: string, value: number | undefined): void {
    const [pane] = this.host.composition.panes
    const place = value === undefined ? undefined : pane?.scales.get(scale)?.map(value)
    this.host.pointer.pointElsewhere(scale === 'x' ? place : undefined)
  }

  zoomedElsewhere(scale: string, ends: readonly [number, number] | undefined): void {
    const { host } = this
    const { [scale]: now, ...rest } = host.state.zoom ?? {}
    if (JSON.stringify(now) === JSON.stringify(ends)) return
    host.jump()
    host.state = { ...host.state, zoom: ends ? { ...rest, [scale]: ends } : rest }
  }
}
