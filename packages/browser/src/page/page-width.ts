import { rememberWidths } from '@dapplo/core/internal'
import type { Font, Measure } from '@dapplo/core/small'

let context: CanvasRenderingContext2D | null | undefined

/** Widths in each family, for all charts of the page. */
const measures = new Map<string, Measure>()
let listens = false

/** A measurer for the page's fonts; another one once fonts have loaded. */
export function pageMeasure(family: string): Measure {
  let measure = measures.get(family)
  if (!measure) {
    // Fonts that come late have other widths; no chart has asked yet, so that this hears of it before any of them.
    if (!listens) document.fonts?.addEventListener('loadingdone', () => measures.clear())
    listens = true
    measure = rememberWidths(measureIn(family))
    measures.set(family, measure)
  }
  return measure
}

function measureIn(family: string): Measure {
  return (text: string, { size, weight }: Font) => {
    context ??= document.createElement('canvas').getContext('2d')
    if (!context) return text.length * size * 0.56
    context.font = `${weight} ${size}px ${family}`
    return context.measureText(text).width
  }
}

const known = new Map<string, boolean>()

/** Letters whose widths differ much from font to font. */
const PROBE = 'mmmWWWlliiI10.-'

/** Whether the page declares a font, or the system has it: then letters are not as wide as those of both others. */
export function pageHasFont(name: string): boolean {
  const declared = [...(document.fonts ?? [])].some(
    ({ family }) => family.replace(/^["']|["']$/g, '') === name,
  )
  if (declared) return true
  let here = known.get(name)
  if (here === undefined) {
    const font = { size: 72, weight: 400 } as const
    const width = (fonts: string) => pageMeasure(fonts)(PROBE, font)
    here = ['monospace', 'serif'].some(other => width(`${JSON.stringify(name)}, ${other}`) !== width(other))
    known.set(name, here)
  }
  return here
}
