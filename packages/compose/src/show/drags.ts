/** A drag that has begun on something. */
export interface Dragging<T> {
  on: T
  x: number
  y: number
}

/** What is done while something is dragged. */
export interface DragsHost<T> {
  /** What may be dragged at a place of the element; undefined where nothing may. */
  at(x: number, y: number): T | undefined
  /** Shows what would come of it, once for each picture of the screen. */
  over(begun: Dragging<T>, x: number, y: number): void
  dropped(begun: Dragging<T>, x: number, y: number): void
  /** What was begun is called off: what was shown before is shown again. */
  calledOff(): void
}

/** So many pixels are still a click. */
const CLICK = 4

/** Lets people drag what stands in an element; a drag is no click. */
export function takesDrags<T>(place: HTMLElement, host: DragsHost<T>, signal: AbortSignal): void {
  let begun: (Dragging<T> & { pointer: number; moved: boolean }) | undefined
  let asked = 0
  const inPlace = ({ clientX, clientY }: PointerEvent) => {
    const { left, top } = place.getBoundingClientRect()
    return [clientX - left, clientY - top] as const
  }
  const listen = (type: string, act: (event: PointerEvent) => void) =>
    place.addEventListener(type, event => act(event as PointerEvent), { signal, capture: true })
  listen('pointerdown', event => {
    const [x, y] = inPlace(event)
    const on = event.button === 0 && event.isPrimary ? host.at(x, y) : undefined
    if (on === undefined) return
    // The chart beneath would begin a selection.
    event.stopPropagation()
    begun = { on, x, y, pointer: event.pointerId, moved: false }
  })
  listen('pointermove', event => {
    if (!begun && event.buttons === 0)
      place.classList.toggle('grabs', host.at(...inPlace(event)) !== undefined)
    if (!begun || event.pointerId !== begun.pointer) return
    event.stopPropagation()
    const [x, y] = inPlace(event)
    if (!begun.moved && Math.hypot(x - begun.x, y - begun.y) < CLICK) return
    if (!begun.moved) {
      begun.moved = true
      place.setPointerCapture(event.pointerId)
    }
    cancelAnimationFrame(asked)
    const now = begun
    asked = requestAnimationFrame(() => host.over(now, x, y))
  })
  const end = (event: PointerEvent) => {
    if (!begun || event.pointerId !== begun.pointer) return
    const { moved } = begun
    const now = begun
    begun = undefined
    cancelAnimationFrame(asked)
    if (!moved) return
    event.stopPropagation()
    if (event.type === 'pointercancel') return host.calledOff()
    // The click that a browser makes of it comes before anything else happens.
    const noClick = (click: Event) => click.stopPropagation()
    globalThis.addEventListener('click', noClick, { capture: true, once: true })
    setTimeout(() => globalThis.removeEventListener('click', noClick, { capture: true }))
    const [x, y] = inPlace(event)
    host.dropped(now, x, y)
  }
  listen('pointerup', end)
  listen('pointercancel', end)
}
