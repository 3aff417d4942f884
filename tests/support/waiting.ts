import type { Page } from 'playwright-core'

/** How long a test or a step of it may take, in milliseconds: so long that only what hangs is stopped, also where others work. */
export const PATIENCE = 300_000

/** Waits until a page has shown what was done to it: no chart and no style moves, and a few frames have passed since. */
export const still = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const charts = () => [window.charts, window.live].flat().filter(one => one?.element)
    for (let quiet = 0; quiet < 6; ) {
      await new Promise(requestAnimationFrame)
      const moves =
        charts().some(chart => chart.moving) ||
        document.getAnimations().some(style => style.playState === 'running')
      quiet = moves ? 0 : quiet + 1
    }
  })
