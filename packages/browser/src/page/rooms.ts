/** A chart whose room is measured: in three steps, so that many charts need one layout of the page between them. */
export interface Measured {
  /** Lets go of the room that it holds open itself. */
  letGo(): void
  /** Looks at what the container gives. */
  look(): void
  /** Whether the container is as it was when last looked at. */
  knows(entry: ResizeObserverEntry): boolean
  /** Takes what it has seen. */
  resized(): void
}

const watched = new Map<Element, Measured>()
let observer: ResizeObserver | undefined

/** Follows the size of a container, together with those of all other charts on the page. Returns what ends it. */
export function followRoom(element: Element, chart: Measured): () => void {
  if (!observer) {
    observer = new ResizeObserver(entries => {
      const changed = entries.flatMap(entry => {
        const chart = watched.get(entry.target)
        return chart && !chart.knows(entry) ? [chart] : []
      })
      measure(changed)
    })
    window.addEventListener('resize', () => measure([...watched.values()]))
  }
  watched.set(element, chart)
  try {
    // In device pixels, so that another screen or the browser's own zoom counts as well.
    observer.observe(element, { box: 'device-pixel-content-box' })
  } catch {
    observer.observe(element)
  }
  return () => {
    watched.delete(element)
    observer?.unobserve(element)
  }
}

/** All let go, all look, all take: the page is laid out once. */
function measure(charts: readonly Measured[]): void {
  for (const chart of charts) chart.letGo()
  for (const chart of charts) chart.look()
  for (const chart of charts) chart.resized()
}

const waiting: (() => void)[] = []

/**
 * Does something to the page once the running code has ended, together with what other charts do to it: charts that are
 * put on the page one after the other would else have it laid out again for each of them.
 */
export function soon(act: () => void): void {
  if (waiting.length === 0)
    queueMicrotask(() => {
      for (const act of waiting.splice(0)) act()
    })
  waiting.push(act)
}
