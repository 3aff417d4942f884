import { type Chart, compose, type Finding, type House, paintCanvas, type Theme } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { answeredElsewhere, View } from '@dapplo/core/internal'
import type { Font } from '@dapplo/core/small'

/** How a small picture looks, and how large it is in pixels. */
export interface Look {
  theme: Theme
  house?: House
  locale?: string
  width: number
  height: number
}

/** What each canvas is wanted for: a picture that comes late does not replace another. */
const wanted = new WeakMap<HTMLCanvasElement, Chart>()

/**
 * A chart as a small picture on a canvas; false where its data do not let it be drawn. Over rows that are elsewhere it is
 * drawn once they have answered.
 */
export function picture(canvas: HTMLCanvasElement, chart: Chart, look: Look): boolean {
  wanted.set(canvas, chart)
  if (!answeredElsewhere(chart.table)) return paint(canvas, chart, look)
  void import('@dapplo/core/far')
    .then(({ ready }) => ready(chart))
    .then(
      () => wanted.get(canvas) === chart && paint(canvas, chart, look),
      () => {},
    )
  return true
}

function paint(canvas: HTMLCanvasElement, chart: Chart, look: Look): boolean {
  const context = canvas.getContext('2d')
  if (!context) return false
  const density = window.devicePixelRatio || 1
  const { theme, house, locale, width, height } = look
  const measure = (text: string, { size, weight }: Font) => {
    context.font = `${weight} ${size}px ${house?.font ?? theme.font}`
    return context.measureText(text).width
  }
  try {
    const scene = compose(chart, {}, { width, height, density, theme, house, locale, measure })
    Object.assign(canvas, { width: width * density, height: height * density })
    paintCanvas(scene, context, density, {
      bitmap: (rgba, columns, rows) => {
        const one = Object.assign(document.createElement('canvas'), { width: columns, height: rows })
        one.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(rgba), columns, rows), 0, 0)
        return one
      },
    })
    return true
  } catch {
    return false
  }
}

/** Likely mistakes in a chart of that size; undefined where it cannot be drawn. */
export function findingsIn(
  chart: Chart,
  width: number,
  height: number,
  theme: Theme,
): readonly Finding[] | undefined {
  // What is elsewhere is not asked for a trial.
  if (answeredElsewhere(chart.table)) return undefined
  try {
    return new View(chart, {}, { width: width || 640, height: height || 360, theme, measure: measureInter })
      .findings
  } catch {
    return undefined
  }
}
