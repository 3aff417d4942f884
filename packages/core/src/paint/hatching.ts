import { DIRECTIONS, HATCH, type Hatch } from '../scene/hatch.ts'
import type { Areas, Batch, Box, Rects, Scene, Wedges } from '../scene/scene.ts'
import type { Context2D } from './context.ts'
import { short } from './hundredths.ts'

/** The pattern over a shape; undefined for none. */
export const hatchOf = ({ hatched, colors, color }: Batch, shape: number): Hatch | undefined =>
  hatched?.[colors[color[shape]]]

/** Strokes over a shape that was traced. They lie on one net over the whole picture, so that neighbours of one pattern join. */
export function hatchOver(context: Context2D, box: Box, hatch: Hatch, ink: string, trace: () => void): void {
  context.save()
  context.beginPath()
  trace()
  context.clip()
  context.globalAlpha *= HATCH.opacity
  context.strokeStyle = ink
  context.lineWidth = HATCH.width
  context.beginPath()
  for (const degrees of DIRECTIONS[hatch]) strokes(context, box, degrees)
  context.stroke()
  context.restore()
}

function strokes(context: Context2D, { x, y, width, height }: Box, degrees: number): void {
  if (degrees === 90) {
    for (let at = Math.ceil(x / HATCH.step) * HATCH.step; at < x + width; at += HATCH.step) {
      context.moveTo(at, y)
      context.lineTo(at, y + height)
    }
    return
  }
  // Strokes at 45 degrees stand farther apart along the edge than across.
  const step = HATCH.step * Math.SQRT2
  const sign = degrees < 0 ? 1 : -1
  const low = sign > 0 ? x + y : x - y - height
  for (let at = Math.ceil(low / step) * step; at < low + width + height; at += step) {
    context.moveTo(sign > 0 ? at - y : at + y, y)
    context.lineTo(sign > 0 ? at - y - height : at + y + height, y + height)
  }
}

export const boxOfRect = ({ x, y, width, height }: Rects, i: number): Box => ({
  x: x[i],
  y: y[i],
  width: width[i],
  height: height[i],
})

/** The box around the whole circle of a slice. */
export const boxOfWedge = ({ x, y, outer }: Wedges, i: number): Box => ({
  x: x[i] - outer[i],
  y: y[i] - outer[i],
  width: outer[i] * 2,
  height: outer[i] * 2,
})

/** The box around a band. */
export function boxOfBand({ starts, x, top, base }: Areas, i: number): Box {
  const [from, to] = [starts[i], starts[i + 1]]
  const present = (values: Float32Array) => [...values.subarray(from, to)].filter(value => value === value)
  const [across, down] = [present(x), [...present(top), ...present(base)]]
  const [left, upper] = [Math.min(...across), Math.min(...down)]
  return { x: left, y: upper, width: Math.max(...across) - left, height: Math.max(...down) - upper }
}

/** What fills a shape in SVG: its colour, or the pattern over it. */
export const fillOf = ({ hatched, colors }: Batch, color: number): string =>
  hatched?.[colors[color]] ? `url(#${nameOf(hatched[colors[color]], colors[color])})` : colors[color]

/** Patterns have one name wherever they are written, since what has that name is the same everywhere. */
const nameOf = (hatch: Hatch, color: string) => `dapplo-${hatch}-${color.replace(/[^\w]/g, '')}`

/** The patterns of a scene as SVG. */
export function hatchDefinitions(
  { batches, background = '#ffffff' }: Scene,
  escaped: (text: string) => string,
): string {
  const all = new Map<string, string>()
  for (const { hatched, colors } of batches)
    for (const color of hatched ? new Set(colors) : []) {
      const hatch = hatched![color]
      if (!hatch) continue
      const name = nameOf(hatch, color)
      const size = HATCH.step
      const lines = DIRECTIONS[hatch].length > 1 ? `M0 0V${size}M0 0H${size}` : `M0 0V${size}`
      const turn = hatch === 'upright' ? 0 : hatch === 'falling' ? -45 : 45
      all.set(
        name,
        `<pattern id="${name}" width="${size}" height="${size}" patternUnits="userSpaceOnUse" patternTransform="rotate(${turn})"><rect width="${size}" height="${size}" fill="${escaped(color)}"/><path d="${lines}" stroke="${escaped(background)}" stroke-opacity="${HATCH.opacity}" stroke-width="${short(HATCH.width * 2)}"/></pattern>`,
      )
    }
  return all.size === 0 ? '' : `<defs>${[...all.values()].join('')}</defs>`
}
