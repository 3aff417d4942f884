import { type Composition, type Pane, paneAt, type Reading, readAt, type Theme } from '@dapplo/core/small'
import type { Stage } from './stage.ts'
import { Tooltip } from './tooltip.ts'

/** Follows the pointer over a chart: reads the nearest values, marks them, and shows them in a tooltip. */
export class Pointer {
  private readonly stage: Stage
  private readonly composition: () => Composition
  private readonly ready: () => boolean
  private readonly tooltip: Tooltip
  private at: { x: number; y: number } | undefined
  private due = 0

  constructor(stage: Stage, composition: () => Composition, ready: () => boolean) {
    this.stage = stage
    this.composition = composition
    this.ready = ready
    this.tooltip = new Tooltip(stage.root)
    stage.root.addEventListener('pointermove', this.moved)
    stage.root.addEventListener('pointerdown', this.moved)
    stage.root.addEventListener('pointerleave', this.left)
    stage.root.addEventListener('pointercancel', this.left)
  }

  /** Reads again at the place of the pointer, after the picture has changed. */
  refresh(): void {
    if (this.at) this.schedule()
  }

  remove(): void {
    cancelAnimationFrame(this.due)
    this.stage.root.removeEventListener('pointermove', this.moved)
    this.stage.root.removeEventListener('pointerdown', this.moved)
    this.stage.root.removeEventListener('pointerleave', this.left)
    this.stage.root.removeEventListener('pointercancel', this.left)
    this.tooltip.remove()
  }

  private readonly moved = (event: PointerEvent) => {
    const box = this.stage.root.getBoundingClientRect()
    // A page may have scaled the chart; its own pixels are what counts.
    const scale = box.width / (this.stage.root.clientWidth || box.width || 1)
    this.at = { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale }
    this.schedule()
  }

  private readonly left = (event: PointerEvent) => {
    // A finger that lifts leaves the tooltip standing, to be read.
    if (event.pointerType === 'touch' && event.type === 'pointerleave') return
    this.at = undefined
    this.schedule()
  }

  private schedule(): void {
    this.due ||= requestAnimationFrame(() => {
      this.due = 0
      this.update()
    })
  }

  private update(): void {
    const composition = this.composition()
    const { scene } = composition
    const reading = this.at && this.ready() ? readAt(composition, this.at.x, this.at.y) : undefined
    // While shapes are on their way, readings would be of places where nothing is yet.
    if (this.at && !this.ready()) this.schedule()
    const context = this.stage.upper(scene, window.devicePixelRatio || 1)
    const pane = this.at && paneAt(composition, this.at.x, this.at.y)
    if (reading && pane && context) mark(context, reading, pane, composition.theme)
    this.tooltip.show(reading, composition, this.at)
  }
}

function mark(
  context: CanvasRenderingContext2D,
  reading: Reading,
  { plot, bound }: Pane,
  theme: Theme,
): void {
  const bars = bound.drawings.every(one => one.drawing.kind.swatch === 'rect')
  if (reading.along !== 'point' && !bars) {
    context.strokeStyle = theme.strong
    context.lineWidth = 1
    context.beginPath()
    const snap = (value: number) => Math.floor(value) + 0.5
    if (reading.along === 'x') {
      context.moveTo(snap(reading.x), plot.y)
      context.lineTo(snap(reading.x), plot.y + plot.height)
    } else {
      context.moveTo(plot.x, snap(reading.y))
      context.lineTo(plot.x + plot.width, snap(reading.y))
    }
    context.stroke()
  }
  for (const row of reading.rows) {
    if (!row.series || row.series.swatch === 'rect' || Number.isNaN(row.x + row.y)) continue
    context.beginPath()
    context.arc(row.x, row.y, row.pointed || reading.along === 'point' ? 5 : 4, 0, Math.PI * 2)
    context.fillStyle = row.series.color
    context.strokeStyle = theme.surface
    context.lineWidth = 3
    context.stroke()
    context.fill()
  }
}
