import { type Chart, compose, type Finding, paintCanvas, type Spread } from '@dapplo/core'
import { answeredElsewhere, tablesOf, View } from '@dapplo/core/internal'
import type { MountOptions } from 'dapplo'
import { Images, pageFrame } from 'dapplo/internal'

/** What small pictures take from the page: where they stand, and how charts look there. */
export interface Page {
  element: HTMLElement
  look: MountOptions
}

const isElsewhere = (chart: Chart | Spread): boolean => tablesOf(chart).some(answeredElsewhere)

/** What each canvas is wanted for: a picture that comes late does not replace another. */
const wanted = new WeakMap<HTMLCanvasElement, Chart | Spread>()

/**
 * A chart as a small picture on a canvas; false where its data do not let it be drawn. Over rows that are elsewhere it is
 * drawn once they have answered.
 */
export function picture(
  canvas: HTMLCanvasElement,
  chart: Chart | Spread,
  size: { width: number; height: number },
  page: Page,
): boolean {
  wanted.set(canvas, chart)
  const again = () => wanted.get(canvas) === chart && paint(canvas, chart, size, page, images)
  const images = new Images(again)
  if (!isElsewhere(chart)) return paint(canvas, chart, size, page, images)
  void import('@dapplo/core/far').then(({ ready }) => ready(chart)).then(again, () => {})
  return true
}

function paint(
  canvas: HTMLCanvasElement,
  chart: Chart | Spread,
  size: { width: number; height: number },
  { element, look }: Page,
  images: Images,
): boolean {
  const context = canvas.getContext('2d')
  if (!context) return false
  const frame = pageFrame(element, size, look)
  const { width, height, density = 1 } = frame
  try {
    const scene = compose(chart, {}, frame)
    Object.assign(canvas, { width: width * density, height: height * density })
    paintCanvas(scene, context, density, images)
    return true
  } catch {
    return false
  }
}

/** Likely mistakes in a chart of a size; undefined where it cannot be drawn, or its rows are elsewhere: they are not asked for a trial. */
export function findingsIn(
  chart: Chart | Spread,
  size: { width: number; height: number },
  { element, look }: Page,
): readonly Finding[] | undefined {
  if (isElsewhere(chart)) return undefined
  try {
    return new View(chart, {}, pageFrame(element, size, look)).findings
  } catch {
    return undefined
  }
}
