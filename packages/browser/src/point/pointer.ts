import { type Composition, paneAt, type Reading, readAt } from '@dapplo/core/small'
import type { Stage } from '../live/stage.ts'
import { guideLine, highlight } from './highlight.ts'
import { Tooltip, type TooltipContent } from './tooltip.ts'

export interface PointerHost {
  composition(): Composition
  /** Whether shapes stand where they belong, so that they can be read. */
  ready(): boolean
  /** Whether readings are shown in a tooltip. */
  tooltip(): boolean
  content: TooltipContent
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
  private told = false
  private due = 0

  constructor(stage: Stage, host: PointerHost) {
    this.stage = stage
    this.host = host
    this.tooltip = new Tooltip(stage.root)
    const { root } = stage
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

  /** Keeps the tooltip as it is, so that its words can be selected, or lets it go again. */
  pin(pinned: boolean): void {
    this.pinned = pinned && this.at !== undefined
    this.tooltip.pin(this.pinned)
    if (!this.pinned) this.schedule()
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
    const { root } = this.stage
    root.removeEventListener('pointermove', this.moved)
    root.removeEventListener('pointerdown', this.moved)
    root.removeEventListener('pointerleave', this.left)
    root.removeEventListener('pointercancel', this.left)
    root.removeEventListener('click', this.clicked)
    this.tooltip.remove()
  }

  private readonly moved = (event: PointerEvent) => {
    if (this.pinned) return
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
    const place = this.at ?? this.placeElsewhere(composition)
    const reading = place && ready ? readAt(composition, place.x, place.y) : undefined
    // While shapes are on their way, readings would be of places where nothing is yet.
    if (place && !ready) this.schedule()
    const context = this.stage.upper(scene)
    const pane = place && paneAt(composition, place.x, place.y)
    if (reading && pane && context) {
      if (!this.at && reading.along === 'x')
        guideLine(context, { ...reading, heading: '' }, pane.plot, composition.theme)
      highlight(context, this.at ? reading : { ...reading, heading: '' }, pane, composition)
    }
    // The heading is said once, where the pointer is.
    const shown = this.host.tooltip() ? reading : undefined
    this.tooltip.show(
      shown && (this.at ? shown : { ...shown, heading: '' }),
      composition,
      place,
      this.host.content,
    )
    // Only what this pointer does is told: answering others would never end.
    if (this.at || this.told) this.host.pointed(this.at ? reading : undefined)
    this.told = this.at !== undefined
  }

  private placeElsewhere({ panes }: Composition): { x: number; y: number } | undefined {
    const plot = panes[0]?.plot
    if (this.elsewhere === undefined || !plot) return undefined
    if (this.elsewhere < plot.x - 1 || this.elsewhere > plot.x + plot.width + 1) return undefined
    return { x: this.elsewhere, y: plot.y + plot.height / 3 }
  }
}
