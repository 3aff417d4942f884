import { guarded } from './guarded.ts'

/** What of the page changes what its charts look like. */
export interface PageChanges {
  /** Day or night, or how fine the screen is, has changed. */
  changed(): void
  /** Fonts that came late have other widths. */
  fontsLoaded(): void
  printing(prints: boolean): void
}

const charts = new Set<PageChanges>()
let listening = false

/** Tells a chart of changes of the page; all charts share the listeners. Returns what ends it. */
export function followPage(chart: PageChanges): () => void {
  if (!listening) listen()
  charts.add(chart)
  return () => charts.delete(chart)
}

function tell(act: (chart: PageChanges) => void): void {
  for (const chart of charts) guarded(() => act(chart))
}

/** For as long as the page stands. */
function listen(): void {
  listening = true
  const changed = () => tell(chart => chart.changed())
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', changed)
  let known = devicePixelRatio
  const look = () => {
    if (devicePixelRatio === known) return
    known = devicePixelRatio
    changed()
  }
  const followDensity = () => {
    look()
    // A query knows one density only, so each change asks anew.
    matchMedia(`(resolution: ${known}dppx)`).addEventListener('change', followDensity, { once: true })
  }
  followDensity()
  // Where a browser tells of no change, the next move of the pointer shows it.
  addEventListener('pointermove', look, { capture: true, passive: true })
  addEventListener('beforeprint', () => tell(chart => chart.printing(true)))
  addEventListener('afterprint', () => tell(chart => chart.printing(false)))
  document.fonts?.addEventListener('loadingdone', () => tell(chart => chart.fontsLoaded()))
}
