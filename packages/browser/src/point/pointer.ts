import { type Composition, type Pane, paneAt, readAlong, readAt } from '@dapplo/core/internal'
import type { Reading } from '@dapplo/core/small'
import type { Stage } from '../live/stage.ts'
import { guideLine, highlight } from './highlight.ts'
import { Leaving } from './leaving.ts'
import { Tooltip, type TooltipContent } from './tooltip.ts'

export interface PointerHost {
  composition(): Composition
  /** Whether all panes share their places along x. */
  sharesPlaces(): boolean
  /** Whether what is shown can be read: where it rests, and on its way where that is known. */
  ready(): boolean
  /** Whether shapes are on their way. */
  moving(): boolean
  /** Whether readings are shown in a tooltip. */
  tooltip(): boolean
  content: TooltipContent
  /** Whether a reading is to be shown: who listens may prevent it. */
  allows(reading: Reading | undefined): boolean
  /** What is pointed at has changed. */
  pointed(reading: Reading | undefined): void
  /** A click, where this pointer is to notice them itself. */
  clicked?: (place: { x: number; y: number }) => void
}

/** Follows the pointer over a chart: reads the nearest values, marks them, and shows them in a tooltip. */
export class Pointer {
  private readonly stage: Stage
  private readonly host: PointerHost
  readonly tooltip: Tooltip
  private at: { x: number; y: number } | undefined
  /** A place along x of another chart with the same scale. */
  private elsewhere: number | undefined
  private pinned = false
  private paused = false
  /** Whether a finger points, after which the card stays. */
  private touched = false
  private readonly leaving: Leaving
  private told = false
  private due = 0

  constructor(stage: Stage, host: PointerHost) {
    this.stage = stage
    this.host = host
    this.tooltip = new Tooltip(stage.root)
    const { root } = stage
    this.leaving = new Leaving({
      within: target => root.contains(target) || this.tooltip.holds(target),
      follow: () => (this.tooltip.isInSight() ? this.refresh() : this.leave()),
      leave: () => this.leave(),
    })
    root.addEventListener('pointermove', this.moved)
    root.addEventListener('pointerdown', this.moved)
    root.addEventListener('pointerleave', this.left)
    root.addEventListener('pointercancel', this.left)
    if (host.clicked) root.addEventListener('click', this.clicked)
  }

  /** Where the pointer is, in pixels of the chart; undefined when it is elsewhere. */
  get place(): { x: number; y: number } | undefined {
    return this.at
  }

  /** Points at a place as if the pointer were there: for those who walk by keys. Undefined: nowhere. */
  pointAt(place: { x: number; y: number } | undefined): void {
    this.pinned = false
    this.at = place
    this.schedule()
  }

  /** Marks a place along x that is pointed at in another chart. */
  pointElsewhere(x: number | undefined): void {
    if (this.elsewhere === x) return
    this.elsewhere = x
    this.schedule()
  }

  /** Reads nothing, as while a drag draws or moves something: a card would cover what that is about. */
  pause(paused: boolean): void {
    this.paused = paused
    if (paused) this.pointAt(undefined)
  }

  /** Keeps the tooltip as it is, so that its words can be selected, or lets it go again. */
  pin(pinned: boolean): void {
    this.pinned = pinned && this.at !== undefined
    this.tooltip.pin(this.pinned)
    if (!this.pinned) this.schedule()
  }

  /** A click that nothing else is done about: pins the card, or lets it go. Where a finger reads, it stays without that. */
  tapped(): void {
    if (!this.touched) this.pin(!this.pinned)
  }

  private leave(): void {
    this.pin(false)
    this.elsewhere = undefined
    this.pointAt(undefined)
  }

  get isPinned(): boolean {
    return this.pinned
  }

  /** Reads again at the place of the pointer, after the picture has changed. */
  refresh(): void {
    if (this.at || this.elsewhere !== undefined) this.schedule()
  }

  remove(): void {
    cancelAnimationFrame(this.due)
    this.leaving.shown(false)
    const { root } = this.stage
    root.removeEventListener('pointermove', this.moved)
    root.removeEventListener('pointerdown', this.moved)
    root.removeEventListener('pointerleave', this.left)
    root.removeEventListener('pointercancel', this.left)
    root.removeEventListener('click', this.clicked)
    this.tooltip.remove()
  }

  private readonly moved = (event: PointerEvent) => {
    this.touched = event.pointerType === 'touch'
    // A finger that comes down elsewhere reads there.
    if (this.pinned && this.touched && event.type === 'pointerdown') this.pin(false)
    if (this.pinned || this.paused) return
    this.at = this.stage.placeOf(event)
    this.schedule()
  }

  private readonly left = (event: PointerEvent) => {
    // A finger that lifts leaves the tooltip standing, to be read.
    if (this.pinned || (event.pointerType === 'touch' && event.type === 'pointerleave')) return
    this.at = undefined
    this.schedule()
  }

  private readonly clicked = (event: MouseEvent) => this.host.clicked?.(this.stage.placeOf(event))

  private schedule(): void {
    this.due ||= requestAnimationFrame(() => {
      this.due = 0
      this.update()
    })
  }

  private update(): void {
    const composition = this.host.composition()
    const { scene } = composition
    const ready = this.host.ready()
    const context = this.stage.upper(scene)
    // While shapes are on their way, what stands at the pointer changes.
    if ((this.at || this.elsewhere !== undefined) && this.host.moving()) this.schedule()
    const found = this.at && ready ? readAt(composition, this.at.x, this.at.y) : undefined
    // Only what this pointer does is asked for: answering others would never end.
    const own = (this.at || this.told) && !this.host.allows(found) ? undefined : found
    const pane = this.at && paneAt(composition, this.at.x, this.at.y)
    const x = own?.along === 'x' ? own.x : this.at ? undefined : this.elsewhere
    // What is pointed at in one pane, or in another chart, is read in all that share the place.
    const others =
      x === undefined || !ready
        ? []
        : composition.panes.flatMap(other => {
            const shares = other !== pane && (!this.at || this.host.sharesPlaces())
            const reading = shares ? readAlong(composition, other, x) : undefined
            return reading ? [{ pane: other, reading }] : []
          })
    if (own && pane && context) highlight(context, own, pane, composition)
    for (const { pane, reading } of context ? others : []) {
      guideLine(context!, { along: 'x', x: x!, y: reading.y, heading: '' }, pane.plot, composition.theme)
      highlight(context!, { ...reading, heading: '' }, pane, composition)
    }
    this.show(own, others, composition)
    // Only what this pointer does is told: answering others would never end.
    if (this.at || this.told) this.host.pointed(this.at ? own : undefined)
    this.told = this.at !== undefined
  }

  /** One card for all that is read: the heading is said once, where the pointer is. */
  private show(
    own: Reading | undefined,
    others: readonly { pane: Pane; reading: Reading }[],
    composition: Composition,
  ): void {
    const rows = others.flatMap(({ reading }) => reading.rows)
    const [first] = others
    const shown: Reading | undefined = own
      ? { ...own, rows: [...own.rows, ...rows.map(row => ({ ...row, pointed: false }))] }
      : first && {
          ...first.reading,
          // The place is said where the pointer is; the name of a group is not.
          heading: first.reading.along === 'point' ? first.reading.heading : '',
          rows,
        }
    const place =
      this.at ?? (first && { x: this.elsewhere!, y: first.pane.plot.y + first.pane.plot.height / 3 })
    this.tooltip.show(this.host.tooltip() ? shown : undefined, composition, place, this.host.content)
    this.leaving.shown(this.tooltip.isShown)
  }
}
