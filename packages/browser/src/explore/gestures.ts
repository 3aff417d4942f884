import { type Composition, type Pane, paneAt } from '@dapplo/core/internal'
import type { Gesture } from '@dapplo/core/small'
import type { Stage } from '../live/stage.ts'
import { cornersOf, type Outline, outlineOf, type Point, spansWithin } from './outline.ts'
import { Sketch } from './sketch.ts'
import { Touch } from './touch.ts'
import { type Directions, type Zoom, Zooming } from './zoom.ts'

export interface GestureHost {
  composition(): Composition
  directions(): Directions
  gestures(): readonly Gesture[]
  zoom(): Zoom
  setZoom(zoom: Zoom, gently: boolean): void
  /** A click without a drag; `adds` when a key asks for more rather than other. */
  clicked(place: { x: number; y: number }, adds: boolean): void
  /** A finger has rested where it came down, and was lifted. */
  rested(): void
  /** A double click; whether the chart is to do what it would do. */
  doubleClicked(place: { x: number; y: number }): boolean
  /** A drag whose outline selects; undefined: it has been broken off. */
  outlined(drag: Outline | undefined): void
  /** A drag has begun that draws or moves something, or has ended. */
  dragging(drags: boolean): void
}

interface Drag {
  start: Point
  path: Point[]
  moved: boolean
  pans: boolean
  adds: boolean
  pane: Pane
}

/** Pixels that a pointer must move for a press to be a drag. */
const DRAG = 5
/** How much one notch of a wheel zooms. */
const WHEEL = 0.0016
/** Pixels of a line, for wheels that count in lines. */
const LINE = 16

/** Zooms and selects by wheel, drag and pinch. */
export class Gestures {
  private readonly stage: Stage
  private readonly host: GestureHost
  private readonly overlay: Sketch
  private readonly zooming = new Zooming()
  private readonly ending = new AbortController()
  private readonly touch: Touch
  private readonly fingers = new Map<number, Point>()
  private drag: Drag | undefined

  constructor(stage: Stage, host: GestureHost) {
    this.stage = stage
    this.host = host
    const { root } = stage
    this.overlay = new Sketch(stage.focus)
    this.touch = new Touch(root, () => this.held())
    const { signal } = this.ending
    root.addEventListener('wheel', this.wheeled, { passive: false, signal })
    root.addEventListener('pointerdown', this.pressed, { signal })
    root.addEventListener('pointermove', this.moved, { signal })
    root.addEventListener('pointerup', this.released, { signal })
    root.addEventListener('pointercancel', this.cancelled, { signal })
    root.addEventListener('lostpointercapture', this.cancelled, { signal })
    root.addEventListener('dblclick', this.doubled, { signal })
  }

  remove(): void {
    this.ending.abort()
    this.touch.remove()
  }

  /**
   * Notes the ends of scales in the picture that was asked for, since one on its way there has others, and leaves the page
   * what the chart does not use of touches.
   */
  update(composition: Composition): void {
    this.zooming.learn(composition, this.host.zoom())
    this.touch.update(this.zooms)
  }

  /** Zooms by keys: around the middle of the plot, or moves by a share of it. */
  byKey(factor: number, x = 0, y = 0): void {
    const [pane] = this.host.composition().panes
    if (!pane || !this.zooms) return
    const { plot } = pane
    const center = { x: plot.x + plot.width / 2, y: plot.y + plot.height / 2 }
    const shift = { x: x * plot.width, y: y * plot.height }
    this.host.setZoom(
      this.zooming.around(pane, this.host.zoom(), this.host.directions(), factor, center, shift),
      true,
    )
  }

  private get zooms(): boolean {
    const { x, y } = this.host.directions()
    return x || y
  }

  /** Whether a drag draws an outline that selects. */
  private get outlines(): 'box' | 'lasso' | undefined {
    const gestures = this.host.gestures()
    return gestures.includes('lasso') ? 'lasso' : gestures.includes('box') ? 'box' : undefined
  }

  private paneAt(place: Point): Pane | undefined {
    return paneAt(this.host.composition(), place.x, place.y)
  }

  private readonly wheeled = (event: WheelEvent) => {
    if (!this.zooms || event.altKey) return
    const place = this.stage.placeOf(event)
    const pane = this.paneAt(place)
    if (!pane) return
    const lines = event.deltaMode === 1 ? LINE : 1
    // Moving the wheel sideways, or with the shift key, moves the view.
    const sideways = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)
    const before = this.host.zoom()
    const shift = -(event.shiftKey ? event.deltaY || event.deltaX : event.deltaX) * lines
    const factor = sideways ? 1 : Math.exp(Math.max(-240, Math.min(240, event.deltaY * lines)) * WHEEL)
    const moved = sideways ? { x: shift, y: 0 } : { x: 0, y: 0 }
    const next = this.zooming.around(pane, before, this.host.directions(), factor, place, moved)
    // At the limit the wheel belongs to the page again.
    if (JSON.stringify(next) === JSON.stringify(before)) return
    event.preventDefault()
    this.host.setZoom(next, false)
  }

  private readonly pressed = (event: PointerEvent) => {
    this.touch.pressed(event)
    if (event.button !== 0 && event.button !== 1) return
    if (event.target instanceof Element && event.target.closest('button, select, input, a')) return
    const place = this.stage.placeOf(event)
    this.fingers.set(event.pointerId, place)
    if (this.fingers.size > 1) {
      this.stopDrag()
      return
    }
    const pane = this.paneAt(place)
    // Beside the plot a click can still mean "nothing".
    this.endDrag()
    if (!pane) return
    this.drag = {
      start: place,
      path: [place],
      moved: false,
      pans: event.button === 1 || (event.shiftKey && this.zooms && !this.outlines),
      adds: event.shiftKey || event.ctrlKey || event.metaKey,
      pane,
    }
  }

  /** A finger has rested: where a drag selects, a mark under it shows that it does so now. */
  private held(): void {
    const { drag } = this
    if (!drag || drag.moved || !this.outlines) return
    this.overlay.mark(drag.start)
  }

  private readonly moved = (event: PointerEvent) => {
    this.touch.moved(event)
    const before = this.fingers.get(event.pointerId)
    if (!before) return
    const place = this.stage.placeOf(event)
    if (this.fingers.size === 2) this.pinched(event.pointerId, before, place)
    this.fingers.set(event.pointerId, place)
    const { drag } = this
    if (!drag || this.fingers.size > 1) return
    const [right, down] = [Math.abs(place.x - drag.start.x), Math.abs(place.y - drag.start.y)]
    if (!drag.moved && Math.hypot(right, down) < DRAG) return
    const touch = event.pointerType === 'touch'
    // The page is about to scroll.
    if (touch && !drag.moved && down > right && !this.touch.rested) return
    const zoomed = Object.keys(this.host.zoom()).length > 0
    if (touch && !this.outlines && !drag.moved) drag.pans = zoomed
    // A finger that is drawn over a chart that neither selects nor is zoomed reads values.
    if (touch && !this.outlines && !zoomed) return
    if (!drag.pans && !this.outlines && !this.zooms) return
    if (!drag.moved) {
      drag.moved = true
      this.host.dragging(true)
      this.capture(event.pointerId)
    }
    if (drag.pans) {
      const shift = { x: place.x - before.x, y: place.y - before.y }
      const { host } = this
      const [pane] = host.composition().panes
      host.setZoom(this.zooming.around(pane, host.zoom(), host.directions(), 1, place, shift), false)
      return
    }
    drag.path.push(place)
    this.sketch()
    this.tell(drag, false)
  }

  /** Follows a pointer also beyond the chart. */
  private capture(pointer: number): void {
    try {
      this.stage.root.setPointerCapture(pointer)
    } catch {
      // It has gone meanwhile.
    }
  }

  /** Tells of the outline of a drag, where it selects. */
  private tell({ path, adds }: { path: readonly Point[]; adds: boolean }, done: boolean): boolean {
    const shape = this.outlines
    if (shape) this.host.outlined({ corners: outlineOf(path, shape), box: shape === 'box', adds, done })
    return shape !== undefined
  }

  private pinched(id: number, before: Point, place: Point): void {
    const other = [...this.fingers].find(([finger]) => finger !== id)?.[1]
    const pane = other && this.paneAt(other)
    if (!other || !pane || !this.zooms) return
    const far = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y) || 1
    const middle = { x: (place.x + other.x) / 2, y: (place.y + other.y) / 2 }
    const shift = { x: (place.x - before.x) / 2, y: (place.y - before.y) / 2 }
    const factor = far(before, other) / far(place, other)
    this.host.setZoom(
      this.zooming.around(pane, this.host.zoom(), this.host.directions(), factor, middle, shift),
      false,
    )
  }

  private readonly released = (event: PointerEvent) => {
    this.touch.lifted()
    const known = this.fingers.delete(event.pointerId)
    const drag = this.endDrag()
    if (!known) return
    if (!drag) {
      if (this.fingers.size === 0) this.host.clicked(this.stage.placeOf(event), false)
      return
    }
    // A finger that rested has looked.
    const looked = event.pointerType === 'touch' && this.touch.rested
    if (!drag.moved && !looked) {
      this.host.clicked(drag.start, drag.adds)
      return
    }
    this.overlay.draw(undefined)
    if (!drag.moved) return this.host.rested()
    if (drag.pans) return
    if (this.tell(drag, true)) return
    const { start } = drag
    const end = drag.path[drag.path.length - 1]
    const { x, y } = spansWithin(drag.pane.plot, start, end)
    const wide = x[1] - x[0] >= DRAG
    const tall = y[1] - y[0] >= DRAG
    const wished = this.host.directions()
    const directions = { x: wished.x && wide, y: wished.y && tall }
    this.host.setZoom(this.zooming.to(drag.pane, this.host.zoom(), directions, { x, y }), true)
  }

  private readonly cancelled = (event: PointerEvent) => {
    // A finger is held by what it came down on until the chart takes it.
    if (event.type === 'lostpointercapture' && event.target !== this.stage.root) return
    this.touch.lifted()
    if (!this.fingers.delete(event.pointerId)) return
    this.stopDrag()
  }

  private endDrag(): Drag | undefined {
    const { drag } = this
    this.drag = undefined
    if (drag?.moved) this.host.dragging(false)
    return drag
  }

  private stopDrag(): void {
    const drag = this.endDrag()
    if (drag) this.overlay.draw(undefined)
    if (drag?.moved && !drag.pans && this.outlines) this.host.outlined(undefined)
  }

  private readonly doubled = (event: MouseEvent) => {
    if (event.target instanceof Element && event.target.closest('button, select, input')) return
    if (!this.host.doubleClicked(this.stage.placeOf(event))) return
    if (this.zooms && Object.keys(this.host.zoom()).length > 0) this.host.setZoom({}, true)
  }

  /** Draws the outline of a drag over the plot. */
  private sketch(): void {
    const { drag } = this
    if (!drag) return
    const shape = this.outlines
    if (shape === 'lasso') {
      this.overlay.draw(drag.path.map(({ x, y }) => [x, y] as const))
      return
    }
    const corners = cornersOf(drag.path)
    const { plot } = drag.pane
    const { x, y } = shape ? { x: true, y: true } : this.host.directions()
    this.overlay.draw(
      corners.map(([cx, cy], i) => [
        x ? cx : i === 0 || i === 3 ? plot.x : plot.x + plot.width,
        y ? cy : i < 2 ? plot.y : plot.y + plot.height,
      ]),
    )
  }
}
