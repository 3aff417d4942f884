/** So long a finger rests before what it draws is the chart's in every direction, in milliseconds. */
const HOLD = 500
/** A finger rests while it moves less than this, in pixels. */
const REST = 10

/**
 * Shares touches out between a chart and its page. A finger that is drawn up or down scrolls the page, as beside the chart;
 * one drawn sideways, one that rested first, and two together are the chart's.
 */
export class Touch {
  /** Whether the finger that is down, or was last, rested first. */
  rested = false
  private readonly root: HTMLElement
  /** Where the first finger came down. */
  private start = { x: 0, y: 0 }
  private readonly holds: () => void
  private waiting: ReturnType<typeof setTimeout> | undefined
  private pinches = false

  constructor(root: HTMLElement, holds: () => void) {
    this.root = root
    this.holds = holds
    // Not passive: only this keeps a page from scrolling once a finger is down.
    root.addEventListener('touchmove', this.dragged, { passive: false })
  }

  /** Whether two fingers are the chart's, as where it zooms; else they enlarge the page. */
  update(pinches: boolean): void {
    this.pinches = pinches
    this.root.style.touchAction = pinches ? 'pan-y' : 'pan-y pinch-zoom'
  }

  remove(): void {
    this.root.removeEventListener('touchmove', this.dragged)
    clearTimeout(this.waiting)
  }

  pressed({ pointerType, isPrimary, clientX, clientY }: PointerEvent): void {
    if (pointerType !== 'touch') return
    clearTimeout(this.waiting)
    this.rested = false
    if (!isPrimary) return
    this.start = { x: clientX, y: clientY }
    this.waiting = setTimeout(() => {
      this.rested = true
      this.holds()
    }, HOLD)
  }

  moved({ isPrimary, clientX, clientY }: PointerEvent): void {
    const { x, y } = this.start
    if (isPrimary && Math.hypot(clientX - x, clientY - y) > REST) clearTimeout(this.waiting)
  }

  lifted(): void {
    clearTimeout(this.waiting)
  }

  private readonly dragged = (event: TouchEvent) => {
    const own = this.rested || (this.pinches && event.touches.length > 1)
    if (own && event.cancelable) event.preventDefault()
  }
}
