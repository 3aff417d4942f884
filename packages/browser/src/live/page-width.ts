import type { Font, Measure } from '@dapplo/core/small'

let context: CanvasRenderingContext2D | null | undefined

/** A measurer for the page's fonts. A new one for each call, so that widths are taken again once fonts have loaded. */
export function pageMeasure(family: string): Measure {
  return (text: string, { size, weight }: Font) => {
    context ??= document.createElement('canvas').getContext('2d')
    if (!context) return text.length * size * 0.56
    context.font = `${weight} ${size}px ${family}`
    return context.measureText(text).width
  }
}
