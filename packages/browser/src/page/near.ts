import { whenIdle } from './idle.ts'

/** How far beyond the window a chart is painted already, in heights of the window. */
const AHEAD = 1

/** Paints a chart when it is seen, or nearly: pictures far from the window wait until it comes near, the first until the page is idle. */
export class Nearness {
  private near: boolean
  private paint: (() => void) | undefined
  private held = 0
  private readonly element: Element

  /** `box`: where the element stands in the window. */
  constructor(element: Element, box: DOMRect) {
    this.element = element
    const reach = window.innerHeight * AHEAD
    this.near = box.bottom > -reach && box.top < window.innerHeight + reach
    watch(element, this)
  }

  /** Paints now, or once it is near; a later picture takes the place of one that waits. */
  paintSoon(paint: () => void): void {
    if (this.near || this.held > 0) {
      this.paint = undefined
      paint()
      return
    }
    if (!this.paint) whenIdle(() => this.catchUp())
    this.paint = paint
  }

  /** Whether it is near has changed. */
  comes(near: boolean): void {
    this.near = near
    if (near) this.catchUp()
  }

  /** Paints what waits. */
  catchUp(): void {
    const { paint } = this
    this.paint = undefined
    paint?.()
  }

  /** Has all pictures painted, as while they are filmed, until the returned function is called. */
  hold(): () => void {
    this.held++
    this.catchUp()
    return () => {
      this.held--
    }
  }

  leave(): void {
    this.paint = undefined
    charts.delete(this.element)
    observer?.unobserve(this.element)
  }
}

const charts = new Map<Element, Nearness>()
let observer: IntersectionObserver | undefined

function watch(element: Element, chart: Nearness): void {
  observer ??= new IntersectionObserver(
    entries => {
      for (const { target, isIntersecting } of entries) charts.get(target)?.comes(isIntersecting)
    },
    { rootMargin: `${AHEAD * 100}% 0px` },
  )
  charts.set(element, chart)
  observer.observe(element)
}
