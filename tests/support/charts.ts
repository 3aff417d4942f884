import type { Page } from 'playwright-core'

export const state = (page: Page, i = 0) => page.evaluate(i => window.charts[i].state, i)
export const title = (page: Page, i: number) => words(page, i, 'title')
export const stamp = (page: Page, i: number) => words(page, i, 'stamp')
const words = (page: Page, i: number, id: string) =>
  page.evaluate(
    ([i, id]) => {
      const texts = window.charts[i].scene.batches.find(batch => batch.id === id)
      return texts?.kind === 'texts' ? texts.texts.join(' ') : ''
    },
    [i, id] as const,
  )
/** Where a place of a chart's plot is on the page; shares from 0 to 1. */
export const at = (page: Page, x: number, y: number, i = 0) =>
  page.evaluate(
    ([x, y, i]) => {
      const live = window.charts[i]
      const plate = live.element.querySelector('.dapplo-keys')!.parentElement!.getBoundingClientRect()
      const [plot] = live.scene.plots
      return { x: plate.left + plot.x + plot.width * x, y: plate.top + plot.y + plot.height * y }
    },
    [x, y, i] as const,
  )
/** The middle of a data shape, by its place in its batch. */
export const shapeAt = (page: Page, kind: 'rects' | 'wedges', shape: number, i = 0) =>
  page.evaluate(
    ([kind, shape, i]) => {
      const live = window.charts[i]
      const plate = live.element.querySelector('.dapplo-keys')!.parentElement!.getBoundingClientRect()
      const batch = live.scene.batches.find(one => one.kind === kind && one.part === 'data')
      if (batch?.kind !== 'rects') throw new Error('There are no bars')
      return {
        x: plate.left + batch.x[shape] + batch.width[shape] / 2,
        y: plate.top + batch.y[shape] + batch.height[shape] / 2,
      }
    },
    [kind, shape, i] as const,
  )
/** So long after a click that the next is no double click, in milliseconds. */
export const SINGLE = 500
export const cards = (page: Page) =>
  page
    .locator('.dapplo-tooltip')
    .evaluateAll(all =>
      all.filter(card => getComputedStyle(card).visibility === 'visible').map(card => card.textContent ?? ''),
    )
