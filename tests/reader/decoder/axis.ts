// Scales found again from the words along a plot.
import type { Box, Picture, Shape } from './svg.ts'
import { numberIn } from './words.ts'

export type Text = Shape & { kind: 'text' }
export interface Tick {
  text: string
  whole: string
  /** Pixels along the axis. */
  at: number
}

/** The words beside a plot, along one of its sides, in the row that is next to it. */
export function ticksOf(picture: Picture, plot: Box, side: 'left' | 'bottom' | 'top' | 'right'): Tick[] {
  const texts = picture.shapes.filter((one): one is Text => one.kind === 'text' && one.plot === undefined)
  const along = side === 'left' || side === 'right' ? 'y' : 'x'
  const near = texts.filter(one => {
    const middle = one.y - one.size * 0.36
    if (along === 'y')
      return (
        middle > plot.y0 - 6 &&
        middle < plot.y1 + 6 &&
        (side === 'left'
          ? one.anchor === 'end' && one.x < plot.x0 && one.x > plot.x0 - 24
          : one.anchor === 'start' && one.x > plot.x1 && one.x < plot.x1 + 24)
      )
    const upright = one.turn === 0 ? one.anchor === 'middle' : true
    const [from, to] = side === 'bottom' ? [plot.y1, plot.y1 + 34] : [plot.y0 - 34, plot.y0]
    return upright && one.x > plot.x0 - 30 && one.x < plot.x1 + 30 && one.y > from - 1 && one.y < to + 1
  })
  const row = along === 'x' ? nearestRow(near, side === 'bottom') : near
  return row
    .map(one => ({
      text: one.text,
      whole: one.whole ?? one.text,
      at: along === 'x' ? one.x : one.y - one.size * 0.36,
    }))
    .sort((a, b) => a.at - b.at)
}

function nearestRow(texts: Text[], below: boolean): Text[] {
  const edge = below ? Math.min(...texts.map(({ y }) => y)) : Math.max(...texts.map(({ y }) => y))
  return texts.filter(({ y, turn }) => Math.abs(y - edge) < (turn === 0 ? 1 : 40))
}

export interface Measure {
  /** Pixels for a value. */
  toPixel(value: number): number
  toValue(pixel: number): number
  ticks: { value: number; at: number }[]
  /** Pixels by which a place may be off, as the words along it are rounded. */
  within: number
}

const SHAPES: [(v: number) => number, (u: number) => number][] = [
  [v => v, u => u],
  [Math.log10, u => 10 ** u],
  [v => Math.sign(v) * Math.sqrt(Math.abs(v)), u => Math.sign(u) * u * u],
]

/** The scale of numbers along these words; undefined where there are too few, a sentence where they fit no scale. */
export function measureOf(ticks: readonly Tick[], locale: string): Measure | string | undefined {
  const numbers = ticks.flatMap(({ text, at }) => {
    const written = numberIn(text, locale)
    return written ? [{ ...written, at }] : []
  })
  if (numbers.length < 2) return undefined
  const texts = new Set(ticks.map(({ text }) => text))
  if (texts.size < ticks.length) return `two ticks say the same: ${ticks.map(({ text }) => text).join(' ')}`
  for (const [there, back] of SHAPES) {
    const points = numbers.map(({ value, at }) => [there(value), at])
    if (points.some(([u]) => !Number.isFinite(u))) continue
    const [a, b] = [points[0], points[points.length - 1]]
    const slope = (b[1] - a[1]) / (b[0] - a[0])
    const off = Math.max(...points.map(([u, at]) => Math.abs(a[1] + (u - a[0]) * slope - at)))
    const rounding = Math.max(
      ...numbers
        .map(({ within, value }) => Math.abs((there(value + within) - there(value)) * slope))
        .filter(Number.isFinite),
    )
    if (!(off < 1 + Math.min(rounding, 3))) continue
    return {
      toPixel: value => a[1] + (there(value) - a[0]) * slope,
      toValue: pixel => back(a[0] + (pixel - a[1]) / slope),
      ticks: numbers.map(({ value, at }) => ({ value, at })),
      within: 1.2,
    }
  }
  return `ticks are uneven: ${ticks.map(({ text, at }) => `${text} at ${at.toFixed(1)}`).join(', ')}`
}
